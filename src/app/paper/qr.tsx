import QRCode from "qrcode";

/** Quiet zone the standard asks for (ISO/IEC 18004, from memory): four modules. */
const QUIET = 4;

/** A QR code as one path in black, with its quiet zone; what it says stands in words beside it. */
export function QrCode({ text, size, label }: { text: string; size: string; label: string }) {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: "M" });
  const dark = Array.from({ length: modules.size * modules.size }, (_, k) => k).filter((k) => modules.data[k]);
  const path = dark.map((k) => `M${(k % modules.size) + QUIET} ${Math.floor(k / modules.size) + QUIET}h1v1h-1z`).join("");
  const side = modules.size + 2 * QUIET;
  return (
    <svg
      viewBox={`0 0 ${side} ${side}`}
      style={{ width: size, height: size, flexShrink: 0 }}
      role="img"
      aria-label={label}
      shapeRendering="crispEdges"
    >
      <rect width={side} height={side} fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  );
}
