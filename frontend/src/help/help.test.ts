// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { office, route, show } from '../../tests/office';
import DocsPage from './DocsPage.vue';
import { GLOSSARY } from './glossary';
import HelpPanel from './HelpPanel.vue';
import { VIEWS } from './views';

describe('help', () => {
  it('knows the words of the documentation, also where two share a row', () => {
    expect(GLOSSARY.get('stale')).toContain('inputs changed');
    expect(GLOSSARY.get('fresh')).toBe(GLOSSARY.get('stale'));
    expect(GLOSSARY.get('mdb')).toContain('smallest error');
    expect(GLOSSARY.has('word')).toBe(false);
  });

  it('says of every view in five lines what it is for, and where more stands', async () => {
    office();
    for (const [stage, view] of Object.entries(VIEWS)) {
      expect(view.lines, stage).toHaveLength(5);
      const panel = await show(HelpPanel, { stage });
      expect(document.body.textContent).toContain(view.lines[4]);
      panel.unmount();
      (route.params as Record<string, string>).page = view.doc[0];
      const docs = await show(DocsPage);
      const headings = docs.findAll('h2, h3').map((h) =>
        h
          .text()
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, '-'),
      );
      expect(
        headings.some((h) => h.startsWith(view.doc[1])),
        `${stage}: ${view.doc[1]} in ${headings.join(' ')}`,
      ).toBe(true);
      docs.unmount();
    }
  });
});
