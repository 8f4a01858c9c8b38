import { F64, inRow, unsigned, type Code, type ValueType } from './code';

/** A function that a module asks for: numbers in, a number out. */
export interface Imported {
  readonly name: string;
  readonly parameters: number;
}

/** The one function of a module, called `run`. Its locals are numbered after its parameters. */
export interface ModuleFunction {
  readonly parameters: readonly ValueType[];
  readonly result: ValueType | null;
  readonly locals: readonly ValueType[];
  readonly body: Code;
}

const HEADER: Code = [0x00, 0x61, 0x73, 0x6d, 0x01, 0x00, 0x00, 0x00];
const FUNCTION_TYPE = 0x60;
const IMPORTS_FUNCTION = 0x00;
const IMPORTS_MEMORY = 0x02;
const EXPORTS_FUNCTION = 0x00;
const END: Code = [0x0b];

/**
 * The bytes of a module with one function `run`, over a memory it is given as `env.memory` (WebAssembly Core Specification 2.0,
 * chapter 5.5). The imported functions are `env.<name>` and are called by their places in the list.
 */
export function moduleBytes(
  imports: readonly Imported[],
  { parameters, result, locals, body }: ModuleFunction,
): Uint8Array<ArrayBuffer> {
  const types = [
    ...imports.map((each) => functionType(new Array<ValueType>(each.parameters).fill(F64), F64)),
    functionType(parameters, result),
  ];
  const asked = [
    inRow(text('env'), text('memory'), [IMPORTS_MEMORY, 0x00], unsigned(1)),
    ...imports.map(({ name }, i) => inRow(text('env'), text(name), [IMPORTS_FUNCTION], unsigned(i))),
  ];
  const code = inRow(list(locals.map((type) => [...unsigned(1), type])), body, END);
  return Uint8Array.from([
    ...HEADER,
    ...section(1, list(types)),
    ...section(2, list(asked)),
    ...section(3, list([unsigned(imports.length)])),
    ...section(7, list([inRow(text('run'), [EXPORTS_FUNCTION], unsigned(imports.length))])),
    ...section(10, list([sized(code)])),
  ]);
}

function functionType(parameters: readonly ValueType[], result: ValueType | null): Code {
  return [FUNCTION_TYPE, ...unsigned(parameters.length), ...parameters, ...(result ? [1, result] : [0])];
}

function section(id: number, content: Code): Code {
  return [id, ...sized(content)];
}

function sized(content: Code): Code {
  return inRow(unsigned(content.length), content);
}

function list(items: readonly Code[]): Code {
  return inRow(unsigned(items.length), ...items);
}

/** A name of plain letters. */
function text(name: string): Code {
  return sized([...name].map((letter) => letter.charCodeAt(0)));
}
