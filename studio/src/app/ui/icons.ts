import { inject, provideAppInitializer } from '@angular/core';
import { MatIconRegistry } from '@angular/material/icon';
import { DomSanitizer } from '@angular/platform-browser';
import circleHelp from 'lucide-static/icons/circle-help.svg';
import eye from 'lucide-static/icons/eye.svg';
import eyeOff from 'lucide-static/icons/eye-off.svg';
import first from 'lucide-static/icons/chevron-first.svg';
import focus from 'lucide-static/icons/focus.svg';
import last from 'lucide-static/icons/chevron-last.svg';
import lock from 'lucide-static/icons/lock.svg';
import lockOpen from 'lucide-static/icons/lock-open.svg';
import moon from 'lucide-static/icons/moon.svg';
import pause from 'lucide-static/icons/pause.svg';
import play from 'lucide-static/icons/play.svg';
import plus from 'lucide-static/icons/plus.svg';
import redo from 'lucide-static/icons/redo-2.svg';
import rows from 'lucide-static/icons/rows-2.svg';
import search from 'lucide-static/icons/search.svg';
import skipBack from 'lucide-static/icons/skip-back.svg';
import skipForward from 'lucide-static/icons/skip-forward.svg';
import pin from 'lucide-static/icons/pin.svg';
import anchor from 'lucide-static/icons/anchor.svg';
import compass from 'lucide-static/icons/compass.svg';
import crosshair from 'lucide-static/icons/crosshair.svg';
import grab from 'lucide-static/icons/grab.svg';
import magnet from 'lucide-static/icons/magnet.svg';
import route from 'lucide-static/icons/route.svg';
import cornerDownRight from 'lucide-static/icons/corner-down-right.svg';
import logIn from 'lucide-static/icons/log-in.svg';
import logOut from 'lucide-static/icons/log-out.svg';
import link from 'lucide-static/icons/link.svg';
import tab from 'lucide-static/icons/arrow-right-to-line.svg';
import sun from 'lucide-static/icons/sun.svg';
import trash from 'lucide-static/icons/trash-2.svg';
import undo from 'lucide-static/icons/undo-2.svg';
import close from 'lucide-static/icons/x.svg';

/** The icons in use, by the name templates give them. One line an icon. */
const ICONS: Readonly<Record<string, string>> = {
  aim: crosshair,
  along: route,
  attach: link,
  chase: magnet,
  close,
  driven: logIn,
  drives: logOut,
  eye,
  'eye-off': eyeOff,
  first,
  focus,
  heading: compass,
  help: circleHelp,
  last,
  lock,
  'lock-open': lockOpen,
  moon,
  'next-key': skipForward,
  pause,
  pin,
  plant: anchor,
  play,
  plus,
  'previous-key': skipBack,
  reach: grab,
  redo,
  seat: cornerDownRight,
  rows,
  search,
  sun,
  tab,
  trash,
  undo,
};

export const provideIcons = () =>
  provideAppInitializer(() => {
    const registry = inject(MatIconRegistry);
    const sanitizer = inject(DomSanitizer);
    for (const [name, svg] of Object.entries(ICONS))
      registry.addSvgIconLiteral(name, sanitizer.bypassSecurityTrustHtml(svg));
  });
