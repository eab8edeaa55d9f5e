import { toString as qrCode } from "qrcode";
import { useEffect, useState } from "react";

/** A QR code (ISO/IEC 18004) of a text, dark on white in every appearance. */
export function QrCode({ value, label, className = "w-48" }: { value: string; label: string; className?: string }) {
  const [code, setCode] = useState("");
  useEffect(() => {
    if (value) void qrCode(value, { type: "svg", margin: 1 }).then(setCode);
  }, [value]);
  if (!code) return null;
  return (
    <img className={`bg-white p-1 ${className}`} src={`data:image/svg+xml,${encodeURIComponent(code)}`} alt={label} />
  );
}
