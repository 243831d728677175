import type { RefObject } from 'react';
import { insertTextIntoField } from 'text-field-edit';
import { useUpload } from '../files/useUpload';

export type Pictures = { problem: string | null; underWay: string | null; putAll(files: File[]): void };

const NAME_END = /\.[^.]+$/;

/** Sends pictures and puts each where the caret is; what it shows is said by its name until that is changed. */
export function usePictures(field: RefObject<HTMLTextAreaElement | null>): Pictures {
  const { problem, underWay, add } = useUpload(() => undefined);
  return {
    problem,
    underWay,
    putAll(files) {
      const pictures = files.filter(({ type }) => type.startsWith('image/'));
      add(pictures, ({ id, name }) => {
        const said = name.replace(NAME_END, '').replace(/[[\]]/g, '');
        if (field.current) insertTextIntoField(field.current, `![${said}](file:${id})`);
      });
    },
  };
}
