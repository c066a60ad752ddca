<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Plinth\Core\Exchange\ExactLine;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Pages\Cuts;
use Plinth\Core\Ink\Pages\Scene;
use Plinth\Server\Source\LinesOfPages;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\LineDrawing;
use Plinth\Server\Source\Reading\PictureFailure;
use Plinth\Server\Source\Reading\PictureTool;

/**
 * Makes what the board shows of one page, inside a folder: a preview first, then the picture decoded once, its grey values, the
 * tile pyramid, how to tell its ink from its paper, proposed cuts, and the exact lines of a line drawing.
 *
 * @phpstan-import-type Line from ExactLine
 *
 * @phpstan-type Made array{tileSuffix: string, cuts: list<array{float, float, float, float}>, lightOnDark: bool, contrast: int, paper: array{cell: float, columns: int, rows: int, levels: string}, lines: int, bytes: int}
 */
final readonly class PageMaker
{
    public const TILE = 256;
    public const GREY = 'grey.v';
    public const SMALL = 'small.v';
    /**
     * px along the longer side: enough to look at on the board, and to find cuts on; the largest JPEG scans come down to it while being
     * decoded
     */
    public const PREVIEW = 1200;
    private const SECONDS = 600.0;
    /** A picture whose colours nowhere differ more than this is line work on yellowed paper: grey serves it. */
    private const COLOURFUL = 24;

    public function __construct(private PictureTool $tool, private LineDrawing $lines)
    {
    }

    /**
     * @param callable(): void $onLook
     * @param callable(): void $onPreview called when the preview lies in the folder
     * @param callable(): void $onTiles called in the place of the first while tiles are written
     *
     * @return Made
     *
     * @throws PictureFailure
     */
    public function make(
        string $source,
        Format $format,
        int $number,
        int $width,
        int $height,
        ?float $resolution,
        string $work,
        callable $onLook,
        callable $onPreview,
        callable $onTiles,
    ): array {
        $small = null;
        $meanwhile = function () use (&$small, $work, $onLook): void {
            $small ??= $this->small($work);
            $onLook();
        };
        $upright = $work.'/upright.v';
        $lines = $lensMm = null;
        if (Format::Pdf === $format) {
            $this->previewOfPdf($source, $number, $width, $height, $work, $onLook);
            $onPreview();
            $small = $this->small($work);
            $lines = $this->renderPdf($source, $number, $width, $height, $resolution ?? 300.0, $small['grey'], $work, $onLook);
        } elseif (Format::Svg === $format || Format::Dxf === $format) {
            $lines = $this->draw($source, $format, $width, $height, $work, $onLook);
            $this->preview($upright, $work, $onLook);
            $onPreview();
        } else {
            $decode = [
                'vips',
                'autorot',
                $source.(Format::Tiff === $format ? \sprintf('[page=%d,fail-on=truncated]', $number - 1) : '[fail-on=truncated]'),
                $upright,
            ];
            if ($format->shrinksOnLoad()) {
                // The first picture comes soonest when nothing else is done beside it.
                $this->preview($source, $work, $onLook);
                $onPreview();
                $this->tool->run($decode, self::SECONDS, [$source], $work, $meanwhile, trusts: false);
            } else {
                $this->tool->run($decode, self::SECONDS, [$source], $work, $onLook, trusts: !$format->isTrusted());
                $this->preview($upright, $work, $onLook);
                $onPreview();
            }
            $lensMm = $this->tool->lensMm($upright);
        }
        ['grey' => $grey, 'raster' => $raster] = $small ?? $this->small($work);
        $picture = $this->pixels($work, $grey, $onLook);
        $tiles = [
            'vips',
            'dzsave',
            $picture,
            $work.'/tiles',
            '--layout',
            'google',
            '--suffix',
            $grey ? '.png[compression=6]' : '.jpg[Q=86]',
            '--tile-size',
            (string) self::TILE,
            '--overlap',
            '0',
            '--background',
            '255',
            '--skip-blanks=-1',
        ];
        $side = [$tiles];
        if (!$grey) {
            $side[] = ['vips', 'colourspace', $picture, $work.'/'.self::GREY, 'b-w'];
        }
        $looked = null;
        $this->tool->runTogether($side, self::SECONDS, [], $work, static function () use ($onTiles, $raster, $width, &$looked): void {
            $onTiles();
            // While the tiles are written there is time to look at the page.
            $looked ??= self::look($raster, $width);
        });
        $looked ??= self::look($raster, $width);
        if (null !== $lines) {
            file_put_contents($work.'/'.LinesOfPages::FILE, json_encode($lines, \JSON_THROW_ON_ERROR));
        }

        return ['tileSuffix' => $grey ? '.png' : '.jpg'] + $looked + ['lines' => \count($lines ?? []), 'bytes' => 0, 'lensMm' => $lensMm];
    }

    /** @param callable(): void $onLook */
    private function preview(string $from, string $work, callable $onLook): void
    {
        $this->tool->run(
            [
                'vips',
                'thumbnail',
                $from,
                $work.'/preview.jpg[Q=82,strip,background=255]',
                (string) self::PREVIEW,
                '--size',
                'down',
                '--fail-on',
                'truncated',
            ],
            120.0,
            [$from],
            $work,
            $onLook,
            trusts: str_ends_with($from, '.v'),
        );
    }

    /**
     * Draws a line drawing into `upright.v`, cut or filled up to the size that was told when it came in.
     *
     * @param callable(): void $onLook
     *
     * @return list<Line> exact lines in page pixels
     */
    private function draw(string $source, Format $format, int $width, int $height, string $work, callable $onLook): array
    {
        $drawn = Format::Svg === $format ? $this->lines->ofSvg($source) : $this->lines->ofDxf($source);
        $svg = $work.'/drawing.svg';
        file_put_contents($svg, $drawn->svg);
        $this->tool->run(
            [...LineDrawing::withLetters(), 'vips', 'flatten', \sprintf('%s[scale=%.8F]', $svg, $drawn->scale), $work.'/drawn.v', '--background', '255'],
            self::SECONDS,
            [LineDrawing::fonts()],
            $work,
            $onLook,
        );
        $words = $this->lines->wordsOfSvg($svg, $drawn->page->width, $onLook);
        file_put_contents($work.'/'.LinesOfPages::WORDS, json_encode($words, \JSON_THROW_ON_ERROR));
        unlink($svg);
        $this->tool->run(
            ['vips', 'gravity', $work.'/drawn.v', $work.'/upright.v', 'north-west', (string) $width, (string) $height, '--extend', 'white'],
            self::SECONDS,
            [],
            $work,
            $onLook,
        );
        unlink($work.'/drawn.v');

        return $drawn->lines;
    }

    /**
     * Drawn small first, in colour, to show it and to see whether there is any colour in it.
     *
     * @param callable(): void $onLook
     */
    private function previewOfPdf(string $source, int $number, int $width, int $height, string $work, callable $onLook): void
    {
        // By its longer side: sizes along x and y are taken before the page's own rotation.
        $this->tool->run([
            'pdftoppm', '-f', (string) $number, '-l', (string) $number, '-singlefile', '-jpeg', '-scale-to', (string) min(
                self::PREVIEW,
                max($width, $height),
            ), $source, $work.'/preview',
        ], 120.0, [$source], $work, $onLook);

        if (!is_file($work.'/preview.jpg')) {
            throw PictureFailure::of('');
        }
    }

    /**
     * @param callable(): void $onLook
     *
     * @return list<Line> exact lines in page pixels
     */
    private function renderPdf(
        string $source,
        int $number,
        int $width,
        int $height,
        float $resolution,
        bool $grey,
        string $work,
        callable $onLook,
    ): array {
        $this->tool->run([
            'pdftoppm', '-f', (string) $number, '-l', (string) $number, '-singlefile', ...($grey ? ['-gray'] : []),
            '-r', \sprintf('%.6F', $resolution), '-x', '0', '-y', '0', '-W', (string) $width, '-H', (string) $height, $source, $work.'/page',
        ], self::SECONDS, [$source], $work, $onLook);
        $page = $work.'/page.'.($grey ? 'pgm' : 'ppm');
        $found = is_file($page) ? PictureHeader::ofPnm($page) : throw PictureFailure::of('');
        if ([$found->width, $found->height] !== [$width, $height]) {
            // The renderer rounds sizes in its own way: what is missing is paper.
            $this->tool->run(
                ['vips', 'gravity', $page, $work.'/upright.v', 'north-west', (string) $width, (string) $height, '--extend', 'white'],
                self::SECONDS,
                [],
                $work,
                $onLook,
            );
        } else {
            $this->tool->run(['vips', 'copy', $page, $work.'/upright.v'], self::SECONDS, [], $work, $onLook);
        }
        unlink($page);

        $lines = $this->lines->ofPdfPage($source, $number, $resolution, $onLook);
        $words = [] === $lines ? [] : $this->lines->wordsOfPdfPage($source, $number, $resolution, $onLook);
        file_put_contents($work.'/'.LinesOfPages::WORDS, json_encode($words, \JSON_THROW_ON_ERROR));

        return $lines;
    }

    /**
     * The page as eight-bit grey or colour without transparency; for grey pages also as grey values.
     *
     * @param callable(): void $onLook
     */
    private function pixels(string $work, bool $grey, callable $onLook): string
    {
        $picture = $work.'/upright.v';
        if (!PictureHeader::of($picture)->is($grey ? PictureHeader::GREY : PictureHeader::COLOUR)) {
            $this->tool->run(
                ['vips', 'colourspace', $picture, $work.'/space.v', $grey ? 'b-w' : 'srgb'],
                self::SECONDS,
                [],
                $work,
                $onLook,
            );
            $picture = $work.'/space.v';
        }
        if (!\in_array(PictureHeader::of($picture)->bands, [1, 3], true)) {
            $this->tool->run(['vips', 'flatten', $picture, $work.'/flat.v', '--background', '255'], self::SECONDS, [], $work, $onLook);
            $picture = $work.'/flat.v';
        }
        if (!$grey) {
            return $picture;
        }
        rename($picture, $work.'/'.self::GREY);

        return $work.'/'.self::GREY;
    }

    /** @return array{grey: bool, raster: GreyRaster} whether it has no colour that matters, and the whole page at a reduced size in grey */
    private function small(string $work): array
    {
        $this->tool->runTogether(
            [
                ['vips', 'copy', $work.'/preview.jpg', $work.'/colour.v'],
                ['vips', 'colourspace', $work.'/preview.jpg', $work.'/'.self::SMALL, 'b-w'],
            ],
            60.0,
            [],
            $work,
        );

        return ['grey' => !self::isColourful($work.'/colour.v'), 'raster' => self::raster($work.'/'.self::SMALL)];
    }

    private static function isColourful(string $picture): bool
    {
        $found = PictureHeader::of($picture);
        if ($found->bands < 3) {
            return false;
        }
        $bytes = (string) file_get_contents($picture, false, null, PictureHeader::BYTES);
        // Every fourth pixel of the reduced picture: a stroke of colour covers many.
        for ($i = 0, $n = $found->width * $found->height * $found->bands - 2, $step = 4 * $found->bands; $i < $n; $i += $step) {
            $r = \ord($bytes[$i]);
            $g = \ord($bytes[$i + 1]);
            $b = \ord($bytes[$i + 2]);
            if (max($r, $g, $b) - min($r, $g, $b) > self::COLOURFUL) {
                return true;
            }
        }

        return false;
    }

    public static function raster(string $file): GreyRaster
    {
        $found = PictureHeader::of($file);

        return new GreyRaster(
            $found->width,
            $found->height,
            (string) file_get_contents($file, false, null, PictureHeader::BYTES, max(0, $found->width * $found->height)),
        );
    }

    /** @return array{cuts: list<array{float, float, float, float}>, isScene: bool, lightOnDark: bool, contrast: int, paper: array{cell: float, columns: int, rows: int, levels: string}} */
    private static function look(GreyRaster $small, int $width): array
    {
        $paper = Paper::of($small);
        $factor = $width / $small->width;
        $cuts = array_map(static function (PixelBox $b) use ($factor): array {
            $box = $b->scaled($factor);

            return [round($box->left, 1), round($box->top, 1), round($box->width, 1), round($box->height, 1)];
        }, Cuts::propose($small, $paper));

        return [
            'cuts' => $cuts, 'isScene' => Scene::isShown($small, $paper), 'lightOnDark' => $paper->lightOnDark, 'contrast' => $paper->contrast,
            'paper' => [
                'cell' => $paper->cell * $factor,
                'columns' => $paper->columns,
                'rows' => $paper->rows,
                'levels' => base64_encode(implode('', array_map(\chr(...), $paper->levels))),
            ],
        ];
    }
}
