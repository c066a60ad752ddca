<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Whatever kind of file a drawing comes as, and whatever it is called, it comes in upright, whole and in its colours. */
final class FormatsTest extends TestCase
{
    private static Files $files;

    public static function setUpBeforeClass(): void
    {
        self::$files = new Files();
    }

    /** @return iterable<string, array{callable(Files): string, bool}> how it is made, and whether it has colours */
    public static function kinds(): iterable
    {
        $by = static fn (string $out, string ...$command): callable => static function (Files $files) use ($out, $command): string {
            $files->vips(...$command);

            return "$files->folder/$out";
        };
        yield 'PNG' => [static fn (Files $f): string => "$f->folder/card.png", true];
        yield 'BMP' => [static fn (Files $f): string => "$f->folder/card.bmp", true];
        yield 'WebP' => [static fn (Files $f): string => "$f->folder/card.webp", true];
        yield 'GIF' => [static fn (Files $f): string => "$f->folder/card.gif", true];
        yield 'HEIC' => [$by('card.heic', 'heifsave', 'card.png', 'card.heic', '--Q', '80'), true];
        yield 'AVIF' => [$by('card.avif', 'heifsave', 'card.png', 'card.avif', '--compression', 'av1', '--Q', '80'), true];
        yield 'JPEG, progressive' => [$by('prog.jpg', 'jpegsave', 'card.png', 'prog.jpg', '--interlace', '--Q', '90'), true];
        yield 'PNG, 16 bit' => [$by('deep.png', 'colourspace', 'card.png', 'deep.png', 'rgb16'), true];
        yield 'TIFF, LZW' => [$by('lzw.tif', 'tiffsave', 'card.png', 'lzw.tif', '--compression', 'lzw', '--predictor', 'horizontal'), true];
        yield 'TIFF, tiled and deflated' => [
            $by('tile.tif', 'tiffsave', 'card.png', 'tile.tif', '--compression', 'deflate', '--tile'),
            true,
        ];
        yield 'TIFF, 16-bit grey' => [static function (Files $f): string {
            $f->vips('colourspace', 'card.png', 'grey16.v', 'grey16');
            $f->vips('tiffsave', 'grey16.v', 'grey16.tif');

            return "$f->folder/grey16.tif";
        }, false];
        yield 'TIFF, CCITT group 4' => [static function (Files $f): string {
            $f->vips('colourspace', 'card.png', 'grey.v', 'b-w');
            $f->vips('tiffsave', 'grey.v', 'fax.tif', '--compression', 'ccittfax4', '--bitdepth', '1');

            return "$f->folder/fax.tif";
        }, false];
        yield 'TIFF, CMYK' => [static function (Files $f): string {
            $f->vips('icc_export', 'card.png', 'cmyk.tif', '--output-profile', 'cmyk');

            return "$f->folder/cmyk.tif";
        }, true];
        yield 'PDF holding a scan, page turned' => [static function (Files $f): string {
            // Turned a quarter to the left inside, and back by the page's own rotation.
            $f->vips('rot', 'card.png', 'left.v', 'd270');
            $f->vips('jpegsave', 'left.v', 'left.jpg', '--Q', '92');

            return $f->write(
                'turned.pdf',
                Files::pdf([[
                    'width' => 72.0 * Files::HEIGHT / 150,
                    'height' => 72.0 * Files::WIDTH / 150,
                    'rotate' => 90,
                    'jpeg' => $f->read('left.jpg'),
                    'pixels' => [Files::HEIGHT, Files::WIDTH],
                ]]),
            );
        }, true];
        yield 'SVG' => [static function (Files $f): string {
            $body = '<rect width="1600" height="1200" fill="#fff"/>';
            foreach (Files::MARKS as [$x, $y, [$r, $g, $b]]) {
                $body .= \sprintf('<rect x="%d" y="%d" width="160" height="160" fill="rgb(%d,%d,%d)"/>', $x - 80, $y - 80, $r, $g, $b);
            }

            return $f->write(
                'card.svg',
                Files::svg($body, 'viewBox="0 0 1600 1200" width="160mm" height="120mm"', "<?xml version=\"1.0\"?>\n<!-- a card -->\n"),
            );
        }, true];
    }

    /** @param callable(Files): string $make */
    #[DataProvider('kinds')]
    public function testItComesInUprightWithItsSizeAndColours(callable $make, bool $hasColours): void
    {
        $file = $make(self::$files);
        $desk = new Desk(Client::ofStack()->signIn());
        // The name lies about what it is.
        $state = $desk->bringIn($file, 'drawing.docx');
        $values = Desk::rows($state, 'page')[0]['values'];
        self::assertIsInt($values['width']);
        self::assertIsInt($values['height']);
        self::assertEqualsWithDelta(Files::WIDTH / Files::HEIGHT, $values['width'] / $values['height'], 1e-3);
        if (!str_ends_with($file, '.svg')) {
            self::assertSame([Files::WIDTH, Files::HEIGHT], [$values['width'], $values['height']]);
        }
        $page = $desk->imported();
        self::assertSame('done', $page['state'], (string) json_encode($page));
        $image = $desk->picture('preview');
        $scale = imagesx($image) / Files::WIDTH;
        foreach (Files::MARKS as [$x, $y, $rgb]) {
            $grey = 0.299 * $rgb[0] + 0.587 * $rgb[1] + 0.114 * $rgb[2];
            $at = imagecolorsforindex($image, (int) imagecolorat($image, (int) ($x * $scale), (int) ($y * $scale)));
            $found = [$at['red'], $at['green'], $at['blue']];
            if ($hasColours) {
                // Inks of a press cannot show every colour of a screen.
                self::assertEqualsWithDelta($rgb, $found, str_ends_with($file, 'cmyk.tif') ? 70 : 25, "mark at $x, $y");
            } else {
                self::assertLessThan(100, abs($found[0] - ($grey > 128 ? 255 : 40)), "mark at $x, $y");
            }
        }
        $highest = 0;
        for ($side = max($values['width'], $values['height']); $side > 256; $side /= 2) {
            ++$highest;
        }
        $tile = $desk->picture("tiles/$highest/0/0");
        self::assertSame(256, imagesx($tile));
        self::assertSame($hasColours ? '.jpg' : '.png', $page['tileSuffix']);
    }

    public function testEachPageOfATiffAndOfAPdfIsAPageWithADrawing(): void
    {
        self::$files->vips('arrayjoin', 'card.png card.png card.png', 'three.v', '--across', '1');
        self::$files->vips('tiffsave', 'three.v', 'three.tif', '--page-height', '1200', '--compression', 'deflate');
        $pdf = self::$files->write('two.pdf', Files::pdf([['width' => 595.0, 'height' => 842.0], ['width' => 842.0, 'height' => 595.0]]));
        foreach ([
            self::$files->folder.'/three.tif' => [[1600, 1200], [1600, 1200], [1600, 1200]],
            $pdf => [[2480, 3509], [3509, 2480]],
        ] as $file => $sizes) {
            $desk = new Desk(Client::ofStack()->signIn());
            $state = $desk->bringIn($file);
            $pages = array_column(Desk::rows($state, 'page'), 'values', 'id');
            $drawings = array_column(Desk::rows($state, 'drawing'), 'values');
            usort($pages, static fn (array $a, array $b): int => $a['number'] <=> $b['number']);
            self::assertSame($sizes, array_map(static fn (array $v): array => [$v['width'], $v['height']], $pages));
            self::assertCount(\count($sizes), $drawings);
            self::assertCount(
                1,
                array_filter($drawings, static fn (array $v): bool => false === $v['hidden']),
                'Only the first is shown at once.',
            );
            foreach (Desk::rows($state, 'page') as $row) {
                $desk->page = $row['id'];
                self::assertSame('done', $desk->imported()['state']);
            }
        }
    }

    public function testLinesOfPdfSvgAndDxfAreKeptExactly(): void
    {
        $pdf = self::$files->write(
            'lines.pdf',
            Files::pdf([['width' => 595.28, 'height' => 841.89, 'content' => '1 w 72.5 100.25 m 500.75 100.25 l S']]),
        );
        $svg = self::$files->write(
            'lines.svg',
            Files::svg(
                '<g transform="translate(10 20) scale(2)"><line x1="0" y1="0" x2="100" y2="50" stroke="#000"/></g>',
                'viewBox="0 0 400 300" width="80mm" height="60mm"',
            ),
        );
        $dxf = self::$files->write('lines.dxf', Files::dxf([[0, 0, 10_000, 0], [10_000, 0, 10_000, 6_000]]));
        $ends = [];
        foreach ([$pdf, $svg, $dxf] as $file) {
            $desk = new Desk(Client::ofStack()->signIn());
            $state = $desk->bringIn($file);
            self::assertSame('done', $desk->imported()['state']);
            $ends[] = [
                $desk->client->ok('GET', "/api/projects/$desk->id/pages/$desk->page/lines"),
                Desk::rows($state, 'page')[0]['values'],
                Desk::rows($state, 'fit')[0]['values'],
            ];
        }
        [$lines, $page] = $ends[0];
        $k = 300.0 / 72.0;
        self::assertIsNumeric($page['height']);
        self::assertEqualsWithDelta(
            [[72.5 * $k, (841.89 - 100.25) * $k, 500.75 * $k, (841.89 - 100.25) * $k, 0]],
            $lines,
            0.01,
            'PDF: points from the lower left corner',
        );
        [$lines, $page] = $ends[1];
        self::assertIsNumeric($page['width']);
        $k = $page['width'] / 400.0;
        self::assertEqualsWithDelta([[10 * $k, 20 * $k, 210 * $k, 120 * $k, 0]], $lines, 0.01, 'SVG: through view box and transforms');
        [$lines, $page, $fit] = $ends[2];
        self::assertSame('file', $fit['basis'], 'A DXF that names its unit needs no guess.');
        $mm = static fn (mixed $x, mixed $y): array => [
            Desk::float($fit['m00']) * Desk::float($x) + Desk::float($fit['m01']) * Desk::float($y) + Desk::float($fit['m02']),
            Desk::float($fit['m10']) * Desk::float($x) + Desk::float($fit['m11']) * Desk::float($y) + Desk::float($fit['m12']),
        ];
        self::assertIsArray($lines[1]);
        self::assertEqualsWithDelta([10_000, 6_000], $mm($lines[1][2], $lines[1][3]), 1e-6, 'DXF: its own coordinates come back');
    }
}
