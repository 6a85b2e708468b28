import { Check, ChevronDown, ChevronUp } from 'lucide-react';
import { Select as Radix } from 'radix-ui';
import { useState } from 'react';

interface SelectProps<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
}

const MORE = 'flex h-5 shrink-0 items-center justify-center text-ink-faint';

export function Select<T extends string>({ label, value, options, onChange }: SelectProps<T>) {
  // Its choices are made when somebody comes to it: a page of closed fields would draw hundreds of them at every edit.
  const [open, setOpen] = useState(false);
  const [focused, setFocused] = useState(false);
  return (
    <Radix.Root value={value} open={open} onOpenChange={setOpen} onValueChange={(next) => onChange(next as T)}>
      <Radix.Trigger
        aria-label={label}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
        className="inline-flex h-7 items-center gap-1 rounded-lg border border-rule bg-raised px-2 font-medium text-ink hover:border-ink-faint"
      >
        <Radix.Value>{options.find((option) => option.value === value)?.label}</Radix.Value>
        <ChevronDown size={13} aria-hidden />
      </Radix.Trigger>
      {(open || focused) && <Choices options={options} />}
    </Radix.Root>
  );
}

function Choices({ options }: { options: readonly { value: string; label: string }[] }) {
  return (
    <Radix.Portal>
      <Radix.Content
        position="popper"
        sideOffset={4}
        className="z-50 flex max-h-(--radix-select-content-available-height) flex-col overflow-hidden rounded-[10px] border border-rule bg-raised p-1 shadow-lift"
      >
        {/* Of a list that is longer than the page: both are there only where more is. */}
        <Radix.ScrollUpButton className={MORE}>
          <ChevronUp size={13} aria-hidden />
        </Radix.ScrollUpButton>
        <Radix.Viewport>
          {options.map((option) => (
            <Radix.Item
              key={option.value}
              value={option.value}
              className="flex h-7 items-center gap-2 rounded-md pr-3 pl-2 outline-none data-[highlighted]:bg-lagoon-wash"
            >
              <span className="w-3.5">
                <Radix.ItemIndicator>
                  <Check size={13} aria-hidden />
                </Radix.ItemIndicator>
              </span>
              <Radix.ItemText>{option.label}</Radix.ItemText>
            </Radix.Item>
          ))}
        </Radix.Viewport>
        <Radix.ScrollDownButton className={MORE}>
          <ChevronDown size={13} aria-hidden />
        </Radix.ScrollDownButton>
      </Radix.Content>
    </Radix.Portal>
  );
}
