import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import styled from 'styled-components';

const Room = styled.div`
  position: relative;
  overflow: hidden;
  min-height: 0;
  display: flex;
  justify-content: center;
`;

interface TrueSizeProps {
  /** Pixels at which the content is laid out, however much room there is. */
  width: number;
  children: ReactNode;
  className?: string;
}

/** Shows what it holds as laid out at a width of its own, made smaller where there is less room; as high as the room is. */
export function TrueSize({ width, children, className }: TrueSizeProps) {
  const room = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  useLayoutEffect(() => {
    const seen = new ResizeObserver(([entry]) => {
      const { width: w, height: h } = entry!.contentRect;
      setSize({ width: w, height: h });
    });
    seen.observe(room.current!);
    return () => seen.disconnect();
  }, []);
  const scale = size ? Math.min(1, size.width / width) : 1;
  return (
    <Room ref={room} className={className}>
      {size && (
        <div
          style={{
            position: 'absolute',
            width: `${width}px`,
            height: `${size.height / scale}px`,
            left: `${Math.max(0, (size.width - width * scale) / 2)}px`,
            transform: `scale(${scale})`,
            transformOrigin: '0 0',
          }}
        >
          {children}
        </div>
      )}
    </Room>
  );
}
