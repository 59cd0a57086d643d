import type { Span } from '../../core/paper';
import type { PageCell, PageNode } from '../../core/sending';
import { classes } from '../../ui';
import css from './document.module.css';

interface Props {
  nodes: readonly PageNode[];
  /** Where a picture of the document is fetched. */
  picture: (file: string) => string;
}

/** A block of the document. What is narrower than a table turns it: each cell says its column. */
export function PageNodes({ nodes, picture }: Props) {
  return nodes.map((node, at) => <One key={at} node={node} picture={picture} />);
}

function One({ node, picture }: { node: PageNode; picture: Props['picture'] }) {
  switch (node.is) {
    case 'heading':
      return node.level === 1 ? <h2>{node.text}</h2> : <h3>{node.text}</h3>;
    case 'paragraph':
      return (
        <p className={classes(node.look && css[node.look])}>
          <Spans spans={node.spans} />
        </p>
      );
    case 'list': {
      const List = node.ordered ? 'ol' : 'ul';
      return (
        <List>
          {node.items.map((item, at) => (
            <li key={at}>
              <Spans spans={item} />
            </li>
          ))}
        </List>
      );
    }
    case 'pairs':
      return (
        <dl className={css.pairs}>
          {node.rows.map(([name, value], at) => (
            <div key={at}>
              <dt>{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      );
    case 'table':
      return <Table node={node} />;
    case 'sums':
      return (
        <dl className={css.sums}>
          {node.rows.map(({ name, text, strong }, at) => (
            <div key={at} data-strong={strong || undefined}>
              <dt>{name}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
      );
    case 'lines':
      return (
        <figure>
          <img
            className={css.drawing}
            alt={node.caption}
            src={`data:image/svg+xml,${encodeURIComponent(node.svg)}`}
          />
          {node.caption !== '' && <figcaption>{node.caption}</figcaption>}
        </figure>
      );
    case 'picture':
      return (
        <figure>
          <img className={css.picture} alt={node.caption} src={picture(node.file)} />
          {node.caption !== '' && <figcaption>{node.caption}</figcaption>}
        </figure>
      );
  }
}

function Spans({ spans }: { spans: readonly Span[] }) {
  return spans.map(({ text, bold, italic, link }, at) => {
    const told = bold ? <strong>{text}</strong> : italic ? <em>{text}</em> : text;
    return link === undefined ? (
      <span key={at}>{told}</span>
    ) : (
      <a key={at} href={link} rel="noreferrer">
        {told}
      </a>
    );
  });
}

function Table({ node: { columns, rows } }: { node: Extract<PageNode, { is: 'table' }> }) {
  return (
    <table className={css.table}>
      <thead>
        <tr>
          {columns.map(({ title, right }, at) => (
            <th key={at} scope="col" data-right={right || undefined}>
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, at) => {
          let column = 0;
          return (
            <tr key={at} data-is={row.is}>
              {row.cells.map((cell, of) => {
                const { over, right } = cell;
                const { title = '' } = columns[column] ?? {};
                column += over;
                return (
                  <td
                    key={of}
                    colSpan={over}
                    data-right={right || undefined}
                    data-column={over === 1 ? title : ''}
                    data-empty={isEmpty(cell) || undefined}
                  >
                    <CellLines cell={cell} />
                  </td>
                );
              })}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const isEmpty = ({ lines, entries }: PageCell): boolean =>
  entries.length === 0 && lines.every(({ spans }) => spans.every(({ text }) => text.trim() === ''));

function CellLines({ cell: { lines, entries } }: { cell: PageCell }) {
  return (
    <>
      {lines.map(({ spans, look }, at) => (
        <div key={at} className={classes(look && css[look])}>
          <Spans spans={spans} />
        </div>
      ))}
      {entries.map(([name = '', value = '', amount = ''], at) => (
        <div key={at} className={css.entry}>
          <span>{name}:</span> {[value, amount].filter(Boolean).join('   ')}
        </div>
      ))}
    </>
  );
}
