import { useEffect, useRef, useState, type IframeHTMLAttributes } from 'react';

interface PageFrameProps extends Omit<IframeHTMLAttributes<HTMLIFrameElement>, 'src' | 'srcDoc' | 'sandbox'> {
  /** The document, as it would be served. */
  html: string;
}

/**
 * An outside page in a frame of its own that may do nothing. One document is loaded at a time, and of those that come
 * meanwhile the last one follows: where a second one comes while the first is loading, browsers can go on showing the
 * first.
 */
export function PageFrame({ html, ...rest }: PageFrameProps) {
  const frame = useRef<HTMLIFrameElement>(null);
  // The frame comes with its first document; those that follow are put into it one after the other.
  const [first] = useState(html);
  const line = useRef({ shown: first, wanted: first, loading: true });
  const show = () => {
    const { shown, wanted, loading } = line.current;
    if (loading || wanted === shown || !frame.current) return;
    line.current = { shown: wanted, wanted, loading: true };
    frame.current.srcdoc = wanted;
  };
  useEffect(() => {
    line.current.wanted = html;
    show();
  }, [html]);
  return (
    <iframe
      {...rest}
      ref={frame}
      sandbox=""
      srcDoc={first}
      onLoad={() => {
        line.current.loading = false;
        show();
      }}
    />
  );
}
