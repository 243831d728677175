import { Button, FileButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useRef, useState } from 'react';
import {
  fromJsonSchema,
  toJsonSchema,
  type FormDefinition,
  type Imported,
  type JsonSchema,
} from '../../../core/forms';
import { useWords } from '../../messages/useWords';
import classes from './services.module.css';

function read(text: string): Imported | null {
  let file: unknown;
  try {
    file = JSON.parse(text);
  } catch {
    return null;
  }
  // A file of ours has two parts; any other is a schema alone.
  const isOurs = typeof file === 'object' && file !== null && 'schema' in file && 'presentation' in file;
  return fromJsonSchema(
    isOurs ? (file as { schema: JsonSchema; presentation: unknown }) : { schema: file as JsonSchema },
  );
}

function save(form: FormDefinition): void {
  const blob = new Blob([JSON.stringify(toJsonSchema(form), null, 2)], { type: 'application/schema+json' });
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = 'form.schema.json';
  link.click();
  URL.revokeObjectURL(link.href);
}

/** A form as a file: JSON Schema with its presentation. */
export function FormFile({
  form,
  isFixed,
  onRead,
}: {
  form: FormDefinition;
  isFixed: boolean;
  onRead(form: FormDefinition): void;
}) {
  const { t } = useWords();
  const reset = useRef<() => void>(null);
  const [why, setWhy] = useState<string | null>(null);
  async function take(file: File | null): Promise<void> {
    if (!file) return;
    // The same file may be chosen again once it is mended.
    reset.current?.();
    const result = read(await file.text());
    if (result && 'form' in result) {
      setWhy(null);
      onRead(result.form);
      notifications.show({ message: t('services/form/imported', { count: result.form.fields.length }) });
      return;
    }
    const problem = result?.problems[0];
    setWhy(
      problem
        ? t(`services/form/whys/${problem.code}`, { what: problem.what, at: problem.at })
        : t('services/form/whys/json'),
    );
  }
  return (
    <>
      <Button size="compact-sm" variant="subtle" color="gray" onClick={() => save(form)}>
        {t('services/form/export')}
      </Button>
      {!isFixed && (
        <FileButton
          resetRef={reset}
          accept=".json,application/json,application/schema+json"
          onChange={(file) => void take(file)}
        >
          {(props) => (
            <Button size="compact-sm" variant="subtle" color="gray" {...props}>
              {t('services/form/import')}
            </Button>
          )}
        </FileButton>
      )}
      {why && (
        <span role="alert" className={classes.problem}>
          {t('services/form/notRead', { why })}
        </span>
      )}
    </>
  );
}
