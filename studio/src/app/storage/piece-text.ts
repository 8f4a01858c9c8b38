import { fillItem, stripItem, type Listed } from '@kaizen/core';

/** An item of a project as the storage has it: the text of its part of the file. Text costs a fraction of what objects cost there. */
export function textOf(key: string, item: unknown): string {
  return JSON.stringify(stripItem(listOfKey(key), item as Readonly<Record<string, unknown>>));
}

/** An item from what is stored. An older Kaizen stored the object itself. */
export function itemOf(key: string, stored: unknown): unknown {
  return typeof stored === 'string'
    ? fillItem(listOfKey(key), JSON.parse(stored) as Readonly<Record<string, unknown>>)
    : stored;
}

function listOfKey(key: string): Listed {
  return key.slice(0, key.indexOf(':')) as Listed;
}
