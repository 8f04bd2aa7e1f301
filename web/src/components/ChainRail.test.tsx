import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { Page } from '../testing/Page.tsx';
import { workspaceOf } from '../testing/workspace.tsx';
import { ChainRail } from './ChainRail.tsx';
import { eachOf } from '@yonder/core/testing/eachOf';

const { report } = workspaceOf({});
const show = (onSelect = vi.fn()) => {
  render(
    <Page>
      <ChainRail report={report} region="knee" onSelect={onSelect} />
    </Page>,
  );
  return onSelect;
};

describe('the chain rail', () => {
  it('names every region with both sides, and the one that is chosen', () => {
    show();
    const rows = screen.getAllByRole('radio');
    expect(rows).toHaveLength(8);
    for (const row of eachOf(rows)) expect(row.getAttribute('aria-label')).toMatch(/: left .+, right .+/);
    expect(
      rows.filter((row) => row.getAttribute('aria-checked') === 'true').map((row) => row.textContent),
    ).toEqual(['Knee']);
  });
  it('chooses the region that is pressed', () => {
    const chosen = show();
    fireEvent.click(screen.getByRole('radio', { name: /^Shoulder/ }));
    expect(chosen).toHaveBeenCalledWith('shoulder');
  });
  it('marks both sides of each region on the body that is drawn, the left on the left', () => {
    const { container } = render(
      <Page>
        <ChainRail report={report} region="hip-groin" onSelect={() => undefined} />
      </Page>,
    );
    const marks = [...container.querySelectorAll('g[transform^="translate"]')].map((mark) =>
      (/translate\(([\d.]+) ([\d.]+)\)/.exec(mark.getAttribute('transform') ?? '') ?? [])
        .slice(1)
        .map(Number),
    );
    expect(marks).toHaveLength(16);
    for (let i = 0; i < marks.length; i += 2) {
      const [[left = 99, high = 0] = [], [right = 0, low = 9] = []] = [marks[i], marks[i + 1]];
      expect(left).toBeLessThan(right);
      expect(high).toBeCloseTo(low, 0);
    }
    expect(container.querySelectorAll('path[data-tone]').length).toBeGreaterThan(6);
  });
});
