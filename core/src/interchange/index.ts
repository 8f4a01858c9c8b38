export * from './asset-bytes';
export * from './assets-beside';
export * from './carries';
export * from './csv/write-csv';
export * from './formats';
export * from './gltf';
export * from './kaizen-zip';
