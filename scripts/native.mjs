// Compiles the line reader against Debian's recogniser into .crow/native, when its source has changed.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';

const SOURCE = 'server/engines/native/lineReader.cpp';
const OUT = '.crow/native/line-reader';

export function compileLineReader() {
  const version = createHash('sha256').update(readFileSync(SOURCE)).digest('hex');
  if (existsSync(OUT) && existsSync(`${OUT}.source`) && readFileSync(`${OUT}.source`, 'utf8') === version) return;
  mkdirSync('.crow/native', { recursive: true });
  execFileSync('g++', ['-std=c++17', '-O2', '-Wall', '-o', `${OUT}.new`, SOURCE, '-ltesseract'], { stdio: 'inherit' });
  renameSync(`${OUT}.new`, OUT);
  writeFileSync(`${OUT}.source`, version);
}
