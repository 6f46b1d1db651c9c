import { getLibFiles } from '@ts-morph/common';

/** The declarations of the language itself, without those of browsers, by file name. For the build and for tests: they are large. */
export const libraries = (): Record<string, string> =>
  Object.fromEntries(
    getLibFiles().flatMap(({ fileName, text }) =>
      /^lib\.(es5|es2015|es2016|es2017|es2018|es2019|es2020|es2021|es2022|es2023|decorators)(\.[\w.]+)?\.d\.ts$/.test(
        fileName,
      )
        ? // The interpreter has no clock.
          [[fileName, text.replace(/declare var Date: ?DateConstructor;/, '')]]
        : [],
    ),
  );
