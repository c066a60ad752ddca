<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

/** What a file is by its content; its name plays no part. */
enum Format: string
{
    case Png = 'image/png';
    case Jpeg = 'image/jpeg';
    case Tiff = 'image/tiff';
    case Webp = 'image/webp';
    case Gif = 'image/gif';
    case Bmp = 'image/bmp';
    case Heic = 'image/heic';
    case Svg = 'image/svg+xml';
    case Pdf = 'application/pdf';
    case Dxf = 'image/vnd.dxf';

    private const HEAD_BYTES = 4096;

    public static function ofContent(string $path): ?self
    {
        $head = (string) file_get_contents($path, false, null, 0, self::HEAD_BYTES);
        $text = preg_replace('/^\xEF\xBB\xBF/', '', $head) ?? $head;

        return match (true) {
            str_starts_with($head, "\x89PNG\r\n\x1A\n") => self::Png,
            str_starts_with($head, "\xFF\xD8\xFF") => self::Jpeg,
            1 === preg_match('/^(II[*+]\x00|MM\x00[*+])/', $head) => self::Tiff,
            str_starts_with($head, 'RIFF') && 'WEBP' === substr($head, 8, 4) => self::Webp,
            1 === preg_match('/^GIF8[79]a/', $head) => self::Gif,
            str_starts_with($head, 'BM') && 1 === preg_match('/^BM.{12}[\x0C\x28\x34\x38\x40\x6C\x7C]\x00\x00\x00/s', $head) => self::Bmp,
            1 === preg_match('/^....ftyp(heic|heix|hevc|mif1|msf1|avif)/s', $head) => self::Heic,
            // Readers accept some junk before the mark.
            str_contains(substr($head, 0, 1024), '%PDF-') => self::Pdf,
            1 === preg_match('/^\s*(999\s*\R[^\r\n]*\R\s*)*0\s*\R\s*SECTION\s*\R/', $text) => self::Dxf,
            1 === preg_match(
                '/^\s*(<\?xml[^>]*\?>\s*|<!--.*?-->\s*|<!DOCTYPE[^>\[]*(\[.*?\])?\s*>\s*)*<(\w+:)?svg[\s>]/s',
                $text,
            ) => self::Svg,
            default => null,
        };
    }

    /** Each frame or sheet of the file is a page of its own. */
    public function hasPages(): bool
    {
        return self::Tiff === $this || self::Pdf === $this;
    }

    /** Small pictures come straight out of these without decoding them whole. */
    public function shrinksOnLoad(): bool
    {
        return self::Jpeg === $this || self::Webp === $this;
    }

    /** Name of the picture tool's loader for it; a file that another loader would open is not what it seems. */
    public function loader(): string
    {
        return match ($this) {
            self::Png => 'pngload',
            self::Jpeg => 'jpegload',
            self::Tiff => 'tiffload',
            self::Webp => 'webpload',
            self::Gif => 'gifload',
            self::Heic => 'heifload',
            self::Bmp => 'magickload',
            self::Svg => 'svgload',
            self::Pdf => 'pdfload',
            self::Dxf => '',
        };
    }

    /** Whether its loader is one that the tool's authors trust with files from outside. */
    public function isTrusted(): bool
    {
        return \in_array($this, [self::Png, self::Jpeg, self::Tiff, self::Webp, self::Gif, self::Heic], true);
    }

    /** How people call it. */
    public function words(): string
    {
        return match ($this) {
            self::Svg => 'SVG drawing',
            self::Pdf => 'PDF',
            self::Dxf => 'DXF drawing',
            default => strtoupper(substr($this->value, 6)).' picture',
        };
    }
}
