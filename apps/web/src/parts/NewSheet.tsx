import type { ReactElement } from 'react';
import { Popover } from '../fields/Popover';
import { NewForm, type NewFormProps } from './NewForm';

interface Props extends NewFormProps {
  /** What is made: "New tier". */
  label: string;
  trigger: ReactElement;
  width?: number;
  align?: 'start' | 'end';
}

/** A sheet that makes something. */
export function NewSheet({ label, trigger, width = 240, align, ...form }: Props) {
  return (
    <Popover label={label} width={width} align={align} trigger={trigger}>
      {(close) => <NewForm {...form} close={close} />}
    </Popover>
  );
}
