import type { AnchorHTMLAttributes, ButtonHTMLAttributes } from 'react';
import { classes } from './classes';
import css from './ui.module.css';

interface Look {
  /** main: what the view is for; plain: without a frame. */
  look?: 'main' | 'plain';
}

const lookOf = ({ look }: Look, more?: string) =>
  classes(css.button, look === 'main' && css.main, look === 'plain' && css.plain, more);

/** A button that does something here. */
export function Button({
  look,
  className,
  type = 'button',
  ...rest
}: Look & ButtonHTMLAttributes<HTMLButtonElement>) {
  return <button type={type} className={lookOf({ ...(look ? { look } : {}) }, className)} {...rest} />;
}

/** A link that looks like one. */
export function LinkButton({ look, className, ...rest }: Look & AnchorHTMLAttributes<HTMLAnchorElement>) {
  return <a className={lookOf({ ...(look ? { look } : {}) }, className)} {...rest} />;
}
