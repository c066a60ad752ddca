<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Core\Exchange\ExactLine;
use Plinth\Server\Source\Reading\DrawnLines;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\LineDrawing;
use Plinth\Server\Source\Reading\PictureFailure;

/**
 * As the server reads them: what has to be opened by another program is opened in the sandbox.
 *
 * @phpstan-import-type Line from ExactLine
 */
final readonly class SandboxedLineFiles implements LineFiles
{
    private const INCH = 25.4;
    /** points to an inch; the tool that tells the size of an SVG counts in them as well */
    private const POINTS = 72.0;

    public function __construct(private Sandboxed $sandboxed)
    {
    }

    public function read(string $file, int $page): ?LineFile
    {
        $file = (string) realpath($file);
        $drawing = new LineDrawing($this->sandboxed->tool());
        try {
            return match ('' === $file ? null : Format::ofContent($file)) {
                Format::Dxf => self::dxf($drawing->ofDxf($file)),
                Format::Svg => self::svg($drawing->ofSvg($file)),
                Format::Pdf => self::pdf($drawing->ofPdfPage($file, $page, self::POINTS, static function (): void {})),
                default => null,
            };
        } catch (PictureFailure) {
            return null;
        }
    }

    private static function dxf(DrawnLines $read): LineFile
    {
        $hint = $read->page->hint;
        $mm = $hint->mmPerPixel ?? 1.0;
        // The corner is the lower left one; pages run downwards.
        [$left, $bottom] = null === $hint?->corner ? [0.0, 0.0] : $hint->corner->toArray();

        return new LineFile(array_map(
            static fn (array $l): array => ExactLine::mapped($l, static fn (float $x, float $y): array => [$x + $left, $y + $bottom]),
            self::scaled($read->lines, $mm, $mm * $read->page->height),
        ), null !== $hint);
    }

    /** @param list<Line> $lines */
    private static function pdf(array $lines): LineFile
    {
        return new LineFile(self::scaled($lines, self::INCH / self::POINTS, 0.0), false);
    }

    private static function svg(DrawnLines $read): LineFile
    {
        return new LineFile(self::scaled($read->lines, self::INCH / self::POINTS / $read->scale, 0.0), false);
    }

    /**
     * @param list<Line> $lines
     *
     * @return list<Line> y up from a height
     */
    private static function scaled(array $lines, float $by, float $height): array
    {
        return array_map(
            static fn (array $l): array => ExactLine::mapped($l, static fn (float $x, float $y): array => [$by * $x, $height - $by * $y]),
            $lines,
        );
    }
}
