/** Each column of a fight is written by one file, and the state says which: whoever looks for who changes what finds one place. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import * as ts from 'typescript';

const HERE = __dirname;

/** Columns by name with the file that is said to write them: that of the last "by …" above. */
function columns(): Map<string, string> {
  const owners = new Map<string, string>();
  let owner = '';
  for (const line of readFileSync(join(HERE, 'state.ts'), 'utf8').split('\n')) {
    owner = /^ {2}\/\/ by ([\w/-]+\.ts)/.exec(line)?.[1] ?? owner;
    const column = /^ {2}(?:protected )?readonly (\w+) = this\.(?:numbers|integers|bytes|lists)[(<]/.exec(line)?.[1];
    if (column !== undefined) owners.set(column, owner);
  }
  return owners;
}

const CHANGES_A_LIST = ['push', 'pop', 'shift', 'splice', 'fill', 'sort', 'length'];

/** Names of the columns that a file writes, however it got hold of them. */
function writes(text: string, names: ReadonlyMap<string, string>): Set<string> {
  const found = new Set<string>();
  const file = ts.createSourceFile('a.ts', text, ts.ScriptTarget.Latest, true);
  const aliases = new Map<string, string>();
  const isFight = (node: ts.Node) => node.kind === ts.SyntaxKind.ThisKeyword || (ts.isIdentifier(node) && node.text === 'fight');
  /** The column that an expression speaks of, or a value or list in it. */
  const columnOf = (node: ts.Node): string | undefined => {
    if (ts.isElementAccessExpression(node)) return columnOf(node.expression);
    if (ts.isPropertyAccessExpression(node)) return isFight(node.expression) && names.has(node.name.text) ? node.name.text : undefined;
    return ts.isIdentifier(node) ? aliases.get(node.text) : undefined;
  };
  const write = (node: ts.Node) => {
    const column = ts.isElementAccessExpression(node) ? columnOf(node) : undefined;
    if (column !== undefined) found.add(column);
  };
  const visit = (node: ts.Node): void => {
    if (ts.isFunctionLike(node)) aliases.clear();
    if (ts.isVariableDeclaration(node) && node.initializer) {
      if (ts.isIdentifier(node.name) && ts.isElementAccessExpression(node.initializer)) {
        const column = columnOf(node.initializer);
        if (column !== undefined) aliases.set(node.name.text, column);
      }
      if (ts.isObjectBindingPattern(node.name) && isFight(node.initializer)) {
        for (const { name, propertyName } of node.name.elements) {
          const column = (propertyName ?? name).getText();
          if (names.has(column)) aliases.set(name.getText(), column);
        }
      }
    }
    if (
      ts.isBinaryExpression(node) &&
      node.operatorToken.kind >= ts.SyntaxKind.FirstAssignment &&
      node.operatorToken.kind <= ts.SyntaxKind.LastAssignment
    ) {
      write(node.left);
      if (ts.isPropertyAccessExpression(node.left) && CHANGES_A_LIST.includes(node.left.name.text)) write(node.left.expression);
    }
    if (
      (ts.isPostfixUnaryExpression(node) || ts.isPrefixUnaryExpression(node)) &&
      (node.operator === ts.SyntaxKind.PlusPlusToken || node.operator === ts.SyntaxKind.MinusMinusToken)
    )
      write(node.operand);
    if (ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression) && CHANGES_A_LIST.includes(node.expression.name.text)) {
      const list = node.expression.expression;
      const column = columnOf(list);
      if (column !== undefined) found.add(column);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

describe('the columns of a fight', () => {
  const owners = columns();
  const files = (readdirSync(HERE, { recursive: true }) as string[]).filter(
    (name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && name !== 'state.ts',
  );

  it('are each written by the one file that the state names beside them', () => {
    const wrong: string[] = [];
    const written = new Set<string>();
    for (const name of files) {
      for (const column of writes(readFileSync(join(HERE, name), 'utf8'), owners)) {
        written.add(column);
        if (owners.get(column) !== name) wrong.push(`${column}: said ${owners.get(column) || 'nobody'}, written by ${name}`);
      }
    }
    for (const column of owners.keys()) if (!written.has(column)) wrong.push(`${column}: said ${owners.get(column)}, written by nobody`);
    expect(wrong).toEqual([]);
    expect(owners.size).toBeGreaterThan(100);
  });

  it('are found whichever way they are written', () => {
    const names = new Map([
      ['health', ''],
      ['ills', ''],
    ]);
    for (const text of [
      'function f(fight) { fight.health[1] = 2; }',
      'function f(fight) { const { health } = fight; health[1] -= 2; }',
      'function f(fight) { const { health: left } = fight; left[1]++; }',
      'class A { f() { this.health[1]--; } }',
    ])
      expect([...writes(text, names)]).toEqual(['health']);
    for (const text of [
      'function f(fight) { fight.ills[1].push(2); }',
      'function f(fight) { fight.ills[1].length = 0; }',
      'function f(fight) { const ills = fight.ills[1]; ills.splice(0, 1); }',
      'function f(fight) { const ills = fight.ills[1]; ills[0] = 1; }',
    ])
      expect([...writes(text, names)]).toEqual(['ills']);
    for (const text of ['function f(fight, health) { health[1] = 2; return fight.health[1] + fight.ills[1].length; }'])
      expect([...writes(text, names)]).toEqual([]);
  });
});
