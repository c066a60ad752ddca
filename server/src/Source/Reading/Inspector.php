<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Server\Http\Refusal;

/** Reads a file's head: what it is, how many pages it has and how large they are. Decodes nothing. */
final readonly class Inspector
{
    public const MOST_PIXELS = 250_000_000;
    public const MOST_PAGES = 200;
    private const LEAST_SIDE = 16;
    /** Vector pages are drawn at this many pixels per inch of paper, fewer where the page is very large. */
    private const VECTOR_RESOLUTION = 300.0;
    private const MOST_VECTOR_PIXELS = 100_000_000;
    /** px along the longer side of pictures that have no paper */
    private const LINE_DRAWING = 4000;
    private const PREVIEW_SIDE = 1200;
    private const PREVIEW_QUALITY = 50;

    public function __construct(private PictureTool $tool, private LineDrawing $lines)
    {
    }

    /**
     * @param callable(): void|null $onLook
     *
     * @return array{Format, non-empty-list<FoundPage>}
     *
     * @throws Refusal in words for whoever chose the file
     * @throws PictureFailure where it may be tried again
     */
    public function inspect(string $path, ?callable $onLook = null): array
    {
        $format = Format::ofContent($path) ?? throw Refusal::invalid(
            'not-a-picture',
            'This is no picture, PDF, SVG or DXF that can be read, whatever its name says. Save it as PNG, JPEG, TIFF or PDF.',
            'file',
        );
        try {
            $pages = match ($format) {
                Format::Pdf => $this->pdf($path, $onLook),
                Format::Svg => [$this->lines->ofSvg($path, $onLook)->page],
                Format::Dxf => [$this->lines->ofDxf($path)->page],
                Format::Tiff => $this->tiff($path, $onLook),
                default => [$this->picture($path, $format, $onLook)],
            };
        } catch (PictureFailure $e) {
            throw $e->mayTryAgain ? $e : Refusal::invalid('unreadable-picture', $e->getMessage(), 'file');
        }
        if ([] === $pages) {
            throw Refusal::invalid('no-pages', 'This file holds no pages. Save or scan it again.', 'file');
        }
        if (\count($pages) > self::MOST_PAGES) {
            throw self::tooManyPages(\count($pages));
        }
        foreach ($pages as $i => $page) {
            self::check($page, \count($pages) > 1 ? 'Page '.($i + 1) : 'This picture');
        }

        return [$format, $pages];
    }

    private static function check(FoundPage $page, string $which): void
    {
        if ($page->width < 1 || $page->height < 1) {
            throw Refusal::invalid(
                'unreadable-picture',
                $which.' cannot be read: the file is damaged, or of a kind that is not supported.',
                'file',
            );
        }
        if ($page->width * $page->height > self::MOST_PIXELS) {
            throw Refusal::tooLarge(
                \sprintf(
                    '%s has %d × %d pixels; at most 250 million are taken in. Scan it at a lower resolution.',
                    $which,
                    $page->width,
                    $page->height,
                ),
                'file',
            );
        }
        if (min($page->width, $page->height) < self::LEAST_SIDE) {
            throw Refusal::invalid(
                'too-thin',
                \sprintf(
                    '%s is %d × %d pixels: too small to hold a drawing. Bring in the full picture.',
                    $which,
                    $page->width,
                    $page->height,
                ),
                'file',
            );
        }
    }

    /** @param callable(): void|null $onLook */
    private function picture(string $path, Format $format, ?callable $onLook): FoundPage
    {
        $found = $this->tool->describe($path, $format, onLook: $onLook);
        $quality = Format::Jpeg === $format ? JpegQuality::of($path) : null;
        $remark = match (true) {
            max($found['width'], $found['height']) < self::PREVIEW_SIDE => \sprintf(
                'This looks like a preview, not the full picture: only %d × %d pixels. Look for the original.',
                $found['width'],
                $found['height'],
            ),
            null !== $quality && $quality < self::PREVIEW_QUALITY => \sprintf(
                'This is heavily compressed (JPEG quality about %d): fine lines are smeared. Look for the original.',
                $quality,
            ),
            $found['pages'] > 1 => \sprintf('The first of %d frames is taken.', $found['pages']),
            default => '',
        };

        return new FoundPage($found['width'], $found['height'], $found['resolution'], $remark);
    }

    /**
     * @param callable(): void|null $onLook
     *
     * @return list<FoundPage>
     */
    private function tiff(string $path, ?callable $onLook): array
    {
        $first = $this->tool->describe($path, Format::Tiff, onLook: $onLook);
        if ($first['pages'] > self::MOST_PAGES) {
            throw self::tooManyPages($first['pages']);
        }
        $pages = [];
        for ($i = 0; $i < $first['pages']; ++$i) {
            $found = 0 === $i ? $first : $this->tool->describe($path, Format::Tiff, \sprintf('[page=%d]', $i), $onLook);
            $pages[] = new FoundPage(
                $found['width'],
                $found['height'],
                $found['resolution'],
                max($found['width'], $found['height']) < self::PREVIEW_SIDE ? \sprintf(
                    'Low resolution: only %d × %d pixels.',
                    $found['width'],
                    $found['height'],
                ) : '',
            );
        }

        return $pages;
    }

    /**
     * @param callable(): void|null $onLook
     *
     * @return list<FoundPage>
     */
    private function pdf(string $path, ?callable $onLook): array
    {
        $about = $this->tool->run(['pdfinfo', $path], 20.0, [$path], onLook: $onLook);
        $count = 1 === preg_match('/^Pages:\s+(-?\d+)/m', $about, $m) ? (int) $m[1] : 0;
        if ($count < 1) {
            return [];
        }
        if ($count > self::MOST_PAGES) {
            throw self::tooManyPages($count);
        }
        $about = $this->tool->run(['pdfinfo', '-f', '1', '-l', (string) $count, $path], 20.0, [$path], onLook: $onLook);
        $scans = $this->scanResolutions($path, $count, $onLook);
        $pages = [];
        for ($n = 1; $n <= $count; ++$n) {
            if (1 !== preg_match('/^Page\s+'.$n.' size:\s+([\d.e+]+) x ([\d.e+]+) pts/m', $about, $size)) {
                throw PictureFailure::of('');
            }
            [$w, $h] = [(float) $size[1], (float) $size[2]];
            if (1 === preg_match('/^Page\s+'.$n.' rot:\s+(90|270)/m', $about)) {
                [$w, $h] = [$h, $w];
            }
            if ($w < 1.0 || $h < 1.0) {
                throw Refusal::invalid('unreadable-picture', \sprintf('Page %d has no size. Save the file again.', $n), 'file');
            }
            [$largest, $resolution] = $scans[$n] ?? [0.0, self::VECTOR_RESOLUTION];
            // A picture that fills most of the page is a scan, and is taken pixel for pixel.
            $resolution = $largest > 0.5 * $w * $h ? max(72.0, min(1200.0, $resolution)) : self::VECTOR_RESOLUTION;
            $resolution = min($resolution, 72.0 * sqrt(self::MOST_VECTOR_PIXELS / $w / $h));
            $pages[] = new FoundPage(self::whole($w * $resolution / 72.0), self::whole($h * $resolution / 72.0), $resolution);
        }

        return $pages;
    }

    /**
     * @param callable(): void|null $onLook
     *
     * @return array<int, array{float, float}> by page: area of its largest picture in square points, and that picture's pixels per inch
     */
    private function scanResolutions(string $path, int $pages, ?callable $onLook): array
    {
        $found = [];
        $list = $this->tool->run(['pdfimages', '-list', '-f', '1', '-l', (string) $pages, $path], 20.0, [$path], onLook: $onLook);
        preg_match_all(
            '/^\s*(\d+)\s+\d+\s+(?:image|stencil)\s+(\d+)\s+(\d+)\s+\S+\s+\d+\s+\d+\s+\S+\s+\S+\s+\S+(?:\s+\d+)?\s+(\d+)\s+(\d+)\s+\S+\s+\S+$/m',
            $list,
            $rows,
            \PREG_SET_ORDER,
        );
        foreach ($rows as [, $page, $w, $h, $x, $y]) {
            if ((int) $x > 0 && (int) $y > 0) {
                $area = 72.0 * (int) $w / (int) $x * 72.0 * (int) $h / (int) $y;
                if ($area > ($found[(int) $page][0] ?? 0.0)) {
                    $found[(int) $page] = [$area, (float) max((int) $x, (int) $y)];
                }
            }
        }

        return $found;
    }

    /** The renderer rounds up; sizes are told with too few digits to do that twice alike, so nearly whole counts as whole. */
    private static function whole(float $pixels): int
    {
        return (int) (abs($pixels - round($pixels)) < 0.06 ? round($pixels) : ceil($pixels));
    }

    private static function tooManyPages(int $count): Refusal
    {
        return Refusal::tooLarge(
            \sprintf('This file has %d pages; at most %d are taken in at once. Split it.', $count, self::MOST_PAGES),
            'file',
        );
    }

    public static function lineDrawingScale(float $width, float $height): float
    {
        return self::LINE_DRAWING / max($width, $height);
    }
}
