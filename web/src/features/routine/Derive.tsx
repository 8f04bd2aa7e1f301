import { Button, Menu } from '@mantine/core';
import { VARIANTS } from '@yonder/core/builder';
import type { Variant } from '@yonder/core/builder';
import { VARIANT_LABEL } from './useRefit.ts';

const HINT: Readonly<Record<Variant, string>> = {
  short: 'the most of it in five minutes',
  'rapid-ready': 'called in: three minutes, standing, no kit',
  'no-kit': 'nothing at hand',
  'no-lying': 'no lying down',
};

interface Props {
  /** True while a version is being solved. */
  busy: boolean;
  /** A variant was chosen. */
  onDerive: (variant: Variant) => void;
  /** For a routine being edited: keeping it as a protocol, throwing it away. */
  onKeep?: () => void;
  /** Throw the routine being edited away; without it there is none. */
  onDiscard?: () => void;
}

/** Versions that are one press away, each solved anew from what a routine holds; and what else can be done with it. */
export function Derive({ busy, onDerive, onKeep, onDiscard }: Props) {
  return (
    <Menu
      withArrow
      withinPortal={false}
      withInitialFocusPlaceholder={false}
      transitionProps={{ duration: 0 }}
    >
      <Menu.Target>
        <Button variant="default" size="xs" h={34} loading={busy}>
          Derive…
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>A version solved anew</Menu.Label>
        {VARIANTS.map((variant) => (
          <Menu.Item key={variant} onClick={() => onDerive(variant)}>
            {VARIANT_LABEL[variant]}
            <span className="muted">, {HINT[variant]}</span>
          </Menu.Item>
        ))}
        {onKeep && onDiscard ? (
          <>
            <Menu.Label>This routine</Menu.Label>
            <Menu.Item onClick={onKeep}>Save as protocol</Menu.Item>
            <Menu.Item color="red" onClick={onDiscard}>
              Discard
            </Menu.Item>
          </>
        ) : null}
      </Menu.Dropdown>
    </Menu>
  );
}
