<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use Plinth\Server\Sandbox\Sandbox;
use Plinth\Server\Sandbox\SandboxState;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\PictureTool;

/**
 * Makes files of every kind from one test card: 1600 × 1200 px, white, black at the upper left, red at the upper right, blue
 * at the lower left, lines between. Made by other tools than the application's own readers where there are any.
 */
final readonly class Files
{
    public const WIDTH = 1600;
    public const HEIGHT = 1200;
    /** [x, y, [r, g, b]] of the middles of the marks */
    public const MARKS = [[200, 150, [0, 0, 0]], [1400, 150, [220, 30, 30]], [200, 1050, [20, 40, 200]], [1400, 1050, [255, 255, 255]]];

    public string $folder;

    public function __construct()
    {
        $this->folder = sys_get_temp_dir().'/plinth-files-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
        $card = self::card();
        imagepng($card, "$this->folder/card.png", 3);
        imagebmp($card, "$this->folder/card.bmp", false);
        imagewebp($card, "$this->folder/card.webp", 95);
        imagegif($card, "$this->folder/card.gif");
    }

    public function __destruct()
    {
        self::clear($this->folder);
        rmdir($this->folder);
    }

    /** The picture tool as the application has it. */
    public static function tool(SandboxState $state = SandboxState::On): PictureTool
    {
        return new PictureTool(new Sandbox($state, \dirname(__DIR__, 2)));
    }

    /** @return array<string, array{string, Format}> the card in every kind of picture that is at hand: where it lies, what it is */
    public function kinds(): array
    {
        $this->vips('jpegsave', 'card.png', 'card.jpg');
        $this->vips('tiffsave', 'card.png', 'card.tif');
        $kinds = [];
        foreach ([
            'png' => Format::Png,
            'bmp' => Format::Bmp,
            'webp' => Format::Webp,
            'gif' => Format::Gif,
            'jpg' => Format::Jpeg,
            'tif' => Format::Tiff,
        ] as $kind => $format) {
            $kinds[$kind] = ["$this->folder/card.$kind", $format];
        }

        return $kinds;
    }

    /** Removes all files in a folder. */
    public static function clear(string $folder): void
    {
        foreach (is_dir($folder) ? new \FilesystemIterator($folder) : [] as $file) {
            if ($file instanceof \SplFileInfo) {
                unlink($file->getPathname());
            }
        }
    }

    public function vips(string ...$command): void
    {
        exec('cd '.escapeshellarg($this->folder).' && vips '.implode(' ', array_map(escapeshellarg(...), $command)).' 2>&1', $out, $code);
        if (0 !== $code) {
            throw new \RuntimeException(implode("\n", $out));
        }
    }

    public function write(string $name, string $bytes): string
    {
        file_put_contents("$this->folder/$name", $bytes);

        return "$this->folder/$name";
    }

    public function read(string $name): string
    {
        return (string) file_get_contents("$this->folder/$name");
    }

    public static function card(int $width = self::WIDTH, int $height = self::HEIGHT): \GdImage
    {
        $image = imagecreatetruecolor(max(1, $width), max(1, $height));
        $colour = static fn (int $r, int $g, int $b): int => (int) imagecolorallocate(
            $image,
            max(0, min(255, $r)),
            max(0, min(255, $g)),
            max(0, min(255, $b)),
        );
        imagefill($image, 0, 0, $colour(255, 255, 255));
        foreach (self::MARKS as [$x, $y, [$r, $g, $b]]) {
            $u = (int) ($x * $width / self::WIDTH);
            $v = (int) ($y * $height / self::HEIGHT);
            imagefilledrectangle($image, $u - 80, $v - 80, $u + 80, $v + 80, $colour($r, $g, $b));
        }
        imagesetthickness($image, 4);
        imageline($image, 400, 300, (int) (0.75 * $width), (int) (0.7 * $height), $colour(0, 0, 0));

        return $image;
    }

    /**
     * A PDF (ISO 32000-1) of pages that each hold one picture, or draw a frame of lines where there is none.
     *
     * @param list<array{width: float, height: float, rotate?: int, jpeg?: string, pixels?: array{int, int}, content?: string}> $pages points
     */
    public static function pdf(array $pages, ?int $claimedPages = null): string
    {
        $objects = ['<< /Type /Catalog /Pages 2 0 R >>', ''];
        $kids = [];
        foreach ($pages as $page) {
            $number = \count($objects) + 1;
            $kids[] = "$number 0 R";
            $picture = isset($page['jpeg'], $page['pixels']);
            $content = $picture ? \sprintf(
                'q %.2F 0 0 %.2F 0 0 cm /P Do Q',
                $page['width'],
                $page['height'],
            ) : $page['content'] ?? '2 w 100 100 m 500 100 l 500 400 l S';
            $objects[] = \sprintf(
                '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 %.2F %.2F] /Rotate %d /Contents %d 0 R /Resources << %s >> >>',
                $page['width'],
                $page['height'],
                $page['rotate'] ?? 0,
                $number + 1,
                $picture ? \sprintf('/XObject << /P %d 0 R >>', $number + 2) : '',
            );
            $objects[] = \sprintf("<< /Length %d >>\nstream\n%s\nendstream", \strlen($content), $content);
            if ($picture) {
                $objects[] = \sprintf(
                    "<< /Type /XObject /Subtype /Image /Width %d /Height %d /ColorSpace /DeviceRGB /BitsPerComponent 8 /Filter /DCTDecode /Length %d >>\nstream\n%s\nendstream",
                    $page['pixels'][0],
                    $page['pixels'][1],
                    \strlen($page['jpeg']),
                    $page['jpeg'],
                );
            }
        }
        $objects[1] = \sprintf('<< /Type /Pages /Count %d /Kids [%s] >>', $claimedPages ?? \count($kids), implode(' ', $kids));
        $pdf = "%PDF-1.4\n";
        $at = [];
        foreach ($objects as $i => $object) {
            $at[] = \strlen($pdf);
            $pdf .= ($i + 1)." 0 obj\n$object\nendobj\n";
        }
        $start = \strlen($pdf);
        $pdf .= "xref\n0 ".(\count($objects) + 1)."\n0000000000 65535 f \n".implode(
            '',
            array_map(static fn (int $a): string => \sprintf("%010d 00000 n \n", $a), $at),
        );

        return $pdf.'trailer << /Size '.(\count($objects) + 1)." /Root 1 0 R >>\nstartxref\n$start\n%%EOF\n";
    }

    /** A PNG head that claims a size, with no more behind it than a few rows' worth of zeros. */
    public static function pngClaiming(int $width, int $height, int $zeros = 100): string
    {
        $chunk = static fn (string $type, string $data): string => pack('N', \strlen($data)).$type.$data.pack('N', crc32($type.$data));

        return "\x89PNG\r\n\x1A\n".$chunk(
            'IHDR',
            pack('NNCCCCC', $width, $height, 8, 0, 0, 0, 0),
        ).$chunk('IDAT', (string) gzcompress(str_repeat("\0", $zeros))).$chunk('IEND', '');
    }

    /** A little-endian TIFF (6.0) of one uncompressed strip with the given tags in place of the usual ones. */
    public static function tiff(int $width, int $height, int $bytes = 100, int $nextAt = 0): string
    {
        $tags = [
            [256, 4, $width], [257, 4, $height], [258, 3, 8], [259, 3, 1], [262, 3, 1], [273, 4, 122], [277, 3, 1],
            [278, 4, $height], [279, 4, $bytes],
        ];
        $ifd = pack('v', \count($tags));
        foreach ($tags as [$tag, $type, $value]) {
            $ifd .= pack('vvVV', $tag, $type, 1, $value);
        }

        return 'II*'."\0".pack('V', 8).$ifd.pack('V', $nextAt).str_repeat("\x80", $bytes);
    }

    public static function svg(string $body, string $head = 'width="800" height="600"', string $before = ''): string
    {
        return "$before<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" $head>$body</svg>";
    }

    /**
     * @param list<array{float, float, float, float}> $lines
     */
    public static function dxf(array $lines, ?int $unit = 4): string
    {
        $text = '';
        if (null !== $unit) {
            $text .= "0\nSECTION\n2\nHEADER\n9\n\$INSUNITS\n70\n$unit\n0\nENDSEC\n";
        }
        $text .= "0\nSECTION\n2\nENTITIES\n";
        foreach ($lines as [$x1, $y1, $x2, $y2]) {
            $text .= "0\nLINE\n8\n0\n10\n$x1\n20\n$y1\n11\n$x2\n21\n$y2\n";
        }

        return $text."0\nENDSEC\n0\nEOF\n";
    }
}
