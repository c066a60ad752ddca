<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Core\Exchange\Dxf\DxfLines;
use Plinth\Core\Exchange\Dxf\DxfText;
use Plinth\Core\Exchange\ExactLine;
use Plinth\Core\Exchange\PostScript\PageLines;
use Plinth\Core\Exchange\Svg\SvgLines;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Reading\DrawnWords;
use Plinth\Core\Sheets\PaperLetters;

/**
 * Files that hold lines instead of pixels: SVG and DXF. Each becomes a picture of a size that serves tracing, and the exact
 * ends of its lines are kept in the pixels of that picture.
 *
 * @phpstan-import-type Line from ExactLine
 * @phpstan-import-type Word from DrawnWords
 */
final readonly class LineDrawing
{
    private const MOST_BYTES = 60_000_000;
    private const MOST_WORDS = 20_000;
    /** drawing units */
    private const FURTHEST = 1e9;
    /** Places further from the zero than this are a map's coordinates, not a building's. */
    private const NEAR_MM = 1e8;
    /** blank edge round a drawing that has no paper, part of its longer side */
    private const EDGE = 0.02;
    /** $INSUNITS of the DXF reference, 2018: drawing units in mm */
    private const UNITS = [1 => 25.4, 2 => 304.8, 4 => 1.0, 5 => 10.0, 6 => 1000.0, 10 => 914.4, 14 => 100.0];
    private const UNIT_NAMES = [1 => 'inches', 2 => 'feet', 4 => 'mm', 5 => 'cm', 6 => 'm', 10 => 'yards', 14 => 'dm'];

    public function __construct(private PictureTool $tool)
    {
    }

    /** @param callable(): void|null $onLook */
    public function ofSvg(string $path, ?callable $onLook = null): DrawnLines
    {
        $svg = self::text($path);
        if (false !== stripos($svg, '<!ENTITY')) {
            throw PictureFailure::unsafe('This SVG defines entities, which are not followed. Save it as plain SVG.');
        }
        // Sizes are told in whole pixels: asked for a thousand times as large they are told exactly enough.
        $told = $this->tool->describe($path, Format::Svg, '[scale=1000]', $onLook);
        $size = ['width' => $told['width'] / 1000.0, 'height' => $told['height'] / 1000.0];
        if ($size['width'] <= 0.0 || $size['height'] <= 0.0) {
            throw PictureFailure::unsafe('This SVG has no size. Give it a width and a height and save it again.');
        }
        $scale = Inspector::lineDrawingScale($size['width'], $size['height']);
        $found = SvgLines::read($svg);
        [$x, $y, $factor] = [0.0, 0.0, 1.0];
        if (null !== $found['viewBox'] && $found['viewBox'][2] > 0.0 && $found['viewBox'][3] > 0.0) {
            [$left, $top, $w, $h] = $found['viewBox'];
            $factor = min($size['width'] / $w, $size['height'] / $h);
            $x = ($size['width'] - $factor * $w) / 2.0 - $factor * $left;
            $y = ($size['height'] - $factor * $h) / 2.0 - $factor * $top;
        }
        $lines = array_map(
            static fn (array $l): array => ExactLine::mapped(
                $l,
                static fn (float $u, float $v): array => [$scale * ($x + $factor * $u), $scale * ($y + $factor * $v)],
            ),
            $found['lines'],
        );

        return new DrawnLines(
            new FoundPage((int) round($size['width'] * $scale), (int) round($size['height'] * $scale), null),
            $svg,
            $scale,
            $lines,
        );
    }

    public function ofDxf(string $path): DrawnLines
    {
        self::limit($path);
        $found = DxfLines::read($path);
        $chains = $found->chains;
        if ([] === $chains) {
            throw PictureFailure::unsafe('This DXF holds no lines that can be shown. Save the drawing again as plain DXF.');
        }
        $xs = array_merge(...array_map(static fn (array $c): array => array_column($c, 0), $chains));
        $ys = array_merge(...array_map(static fn (array $c): array => array_column($c, 1), $chains));
        [$xMin, $xMax, $yMin, $yMax] = [min($xs), max($xs), min($ys), max($ys)];
        $longer = max($xMax - $xMin, $yMax - $yMin);
        if (max(abs($xMin), abs($xMax), abs($yMin), abs($yMax)) > self::FURTHEST) {
            throw PictureFailure::unsafe(
                'This DXF has lines further from its origin than anything on Earth. Remove what lies far off, or move the drawing, and save it again.',
            );
        }
        if ($longer <= 0.0) {
            throw PictureFailure::unsafe('This DXF holds no lines that can be shown. Save the drawing again as plain DXF.');
        }
        $edge = self::EDGE * $longer;
        $scale = Inspector::lineDrawingScale($xMax - $xMin + 2 * $edge, $yMax - $yMin + 2 * $edge);
        $width = (int) ceil($scale * ($xMax - $xMin + 2 * $edge));
        $height = (int) ceil($scale * ($yMax - $yMin + 2 * $edge));
        $left = $xMin - $edge;
        $bottom = $yMax + $edge - $height / $scale;
        $lines = [];
        $paths = [];
        foreach ($chains as $c => $chain) {
            $points = array_map(static fn (array $p): array => [$scale * ($p[0] - $left), $height - $scale * ($p[1] - $bottom)], $chain);
            $paths[] = 'M'.implode('L', array_map(static fn (array $p): string => \sprintf('%.3F %.3F', $p[0], $p[1]), $points));
            for ($i = 0; $i + 1 < \count($points) && \count($lines) < SvgLines::MOST; ++$i) {
                $lines[] = [...$points[$i], ...$points[$i + 1], $found->pens[$c] ?? 0];
            }
        }
        $of = static fn (DxfText $t): DxfText => $t->mapped([$scale, 0.0, 0.0, $scale, -$scale * $left, -$scale * $bottom]);
        $svg = \sprintf(
            '<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d"><rect width="100%%" height="100%%" fill="#fff"/><path d="%s" fill="none" stroke="#000" stroke-width="2.5" stroke-linecap="round"/>%s</svg>',
            $width,
            $height,
            implode('', $paths),
            implode('', array_map(static fn (DxfText $t): string => self::letters($of($t), $height), $found->texts)),
        );
        $mm = self::UNITS[$found->unit] ?? null;
        $hint = null === $mm ? null : new PageHint(
            $mm / $scale,
            0.0,
            max(abs($mm * $left), abs($mm * $bottom)) < self::NEAR_MM ? new Point($mm * $left, $mm * $bottom) : null,
            'file, drawn in '.self::UNIT_NAMES[$found->unit],
        );
        $remark = null === $mm ? 'The file does not say its unit: calibrate it as you would a scan.' : '';

        return new DrawnLines(new FoundPage($width, $height, null, $remark, $hint), $svg, 1.0, $lines);
    }

    /** Letters of a DXF, in pixels and y up. */
    private static function letters(DxfText $t, int $height): string
    {
        return \sprintf(
            '<text transform="translate(%.3F %.3F) rotate(%.4F)" font-family="%s" font-size="%.3F" text-anchor="%s">%s</text>',
            $t->x,
            $height - $t->y,
            -rad2deg($t->turnRad),
            PaperLetters::FAMILY,
            PaperLetters::regular()->size($t->height),
            $t->anchor,
            htmlspecialchars($t->text, \ENT_XML1 | \ENT_SUBSTITUTE),
        );
    }

    /**
     * @param callable(): void $onLook
     *
     * @return list<Line> lines of one PDF page in its pixels; none where it holds too much to be a line drawing
     */
    public function ofPdfPage(string $path, int $number, float $resolution, callable $onLook): array
    {
        try {
            $page = ['-f', (string) $number, '-l', (string) $number];
            $about = $this->tool->run(['pdfinfo', ...$page, $path], 20.0, [$path]);
            if (1 !== preg_match('/^Page\s+\d+ size:\s+([\d.e+]+) x ([\d.e+]+) pts/m', $about, $size)) {
                return [];
            }
            $turned = 1 === preg_match('/^Page\s+\d+ rot:\s+(90|270)/m', $about);
            $height = (float) $size[$turned ? 1 : 2];
            $k = $resolution / 72.0;
            $lines = PageLines::read(
                $this->tool->run(['pdftops', ...$page, '-noshrink', '-nocenter', $path, '-'], 60.0, [$path], onLook: $onLook),
            );

            return array_map(
                static fn (array $l): array => ExactLine::mapped($l, static fn (float $x, float $y): array => [$k * $x, $k * ($height - $y)]),
                $lines,
            );
        } catch (PictureFailure $e) {
            return $e->mayTryAgain ? throw $e : [];
        }
    }

    /**
     * @param callable(): void $onLook
     *
     * @return list<Word> words of one PDF page, in its pixels
     */
    public function wordsOfPdfPage(string $path, int $number, float $resolution, callable $onLook): array
    {
        try {
            return self::words($this->tool->run(
                ['pdftotext', '-bbox', '-f', (string) $number, '-l', (string) $number, $path, '-'],
                30.0,
                [$path],
                onLook: $onLook,
            ), $resolution / 72.0);
        } catch (PictureFailure $e) {
            return $e->mayTryAgain ? throw $e : [];
        }
    }

    /**
     * @param string $svg file in a folder that may be written to
     * @param int $width of the page that is made of it, px
     * @param callable(): void $onLook
     *
     * @return list<Word> its words, in pixels of that page
     */
    public function wordsOfSvg(string $svg, int $width, callable $onLook): array
    {
        if (!str_contains((string) file_get_contents($svg), '<text')) {
            return [];
        }
        try {
            // By way of a page with text that can be searched, on which every transform is taken.
            $convert = [...self::withLetters(), 'rsvg-convert', '--unlimited', '-f', 'pdf', '-o', "$svg.pdf", $svg];
            $this->tool->run($convert, 60.0, [self::fonts()], \dirname($svg), $onLook);
            $told = $this->tool->run(['pdftotext', '-bbox', "$svg.pdf", '-'], 30.0, ["$svg.pdf"], onLook: $onLook);
        } catch (PictureFailure $e) {
            return $e->mayTryAgain ? throw $e : [];
        } finally {
            @unlink("$svg.pdf");
        }

        return 1 === preg_match('/<page width="([\d.]+)"/', $told, $page) && (float) $page[1] > 0.0
            ? self::words($told, $width / (float) $page[1])
            : [];
    }

    /** @return list<Word> */
    private static function words(string $told, float $by): array
    {
        preg_match_all('/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]+)</', $told, $found, \PREG_SET_ORDER);

        return array_map(static fn (array $w): array => [
            mb_scrub(html_entity_decode($w[5], \ENT_QUOTES | \ENT_XML1, 'UTF-8')), $by * (float) $w[1], $by * (float) $w[2], $by * (float) $w[3], $by * (float) $w[4],
        ], \array_slice($found, 0, self::MOST_WORDS));
    }

    /** @return non-empty-list<string> what a tool is called by that draws letters: those of sheets where the machine has none */
    public static function withLetters(): array
    {
        return ['env', 'FONTCONFIG_FILE='.self::fonts().'/any.conf'];
    }

    /** What such a tool reads. */
    public static function fonts(): string
    {
        return \dirname(__DIR__, 4).'/core/fonts';
    }

    private static function limit(string $path): void
    {
        if ((int) filesize($path) > self::MOST_BYTES) {
            throw PictureFailure::unsafe('This line drawing is larger than 60 MB. Leave out what is not needed and save it again.');
        }
    }

    private static function text(string $path): string
    {
        self::limit($path);

        return (string) file_get_contents($path);
    }
}
