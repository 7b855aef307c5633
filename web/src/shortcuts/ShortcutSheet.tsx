import { Kbd, Modal } from '@mantine/core';
import { KeyCaps, type Shortcut } from './Shortcuts.tsx';
import classes from './Shortcuts.module.css';

interface ShortcutSheetProps {
  groups: readonly { group: string; shortcuts: readonly Shortcut[] }[];
  onClose(): void;
}

/** Every key that does something here, by place. */
export function ShortcutSheet({ groups, onClose }: ShortcutSheetProps) {
  return (
    <Modal opened onClose={onClose} title="Keys" size="xl" closeButtonProps={{ 'aria-label': 'Close' }}>
      <div className={classes.sheet}>
        {groups
          .filter((g) => g.shortcuts.length > 0)
          .map(({ group, shortcuts }) => (
            <section key={group}>
              <h3>{group}</h3>
              <dl>
                {shortcuts.map((s) => (
                  <div key={s.keys}>
                    <dt>
                      <KeyCaps keys={s.keys} />
                    </dt>
                    <dd>{s.does}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        <section>
          <h3>Everywhere</h3>
          <dl>
            <div>
              <dt>
                <Kbd>?</Kbd>
              </dt>
              <dd>Show this sheet</dd>
            </div>
          </dl>
        </section>
      </div>
    </Modal>
  );
}
