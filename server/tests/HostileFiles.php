<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

/** Broken, lying and malicious files, all made here. Nothing of it is random: each run tries the same. */
final readonly class HostileFiles
{
    public function __construct(private Files $files)
    {
    }

    /** @return iterable<string, array{string, string}> what it is → the bytes and the name it is sent under */
    public function all(): iterable
    {
        yield from $this->cutShort();
        yield from $this->scribbledOver();
        yield from $this->otherKinds();
        yield from self::bombs();
        yield from self::badPdf();
        yield from self::badSvg();
        yield from self::badDxf();
        yield from $this->badNames();
    }

    /** @return array<string, string> a small good file of each kind */
    public function good(): array
    {
        $small = Files::card(320, 240);
        imagepng($small, $this->files->folder.'/small.png');
        imagebmp($small, $this->files->folder.'/small.bmp', false);
        imagewebp($small, $this->files->folder.'/small.webp');
        imagegif($small, $this->files->folder.'/small.gif');
        $this->files->vips('jpegsave', 'small.png', 'small.jpg');
        $this->files->vips('jpegsave', 'small.png', 'progressive.jpg', '--interlace');
        $this->files->vips('tiffsave', 'small.png', 'small.tif', '--compression', 'lzw');
        $jpeg = $this->files->read('small.jpg');

        return [
            'png' => $this->files->read('small.png'), 'bmp' => $this->files->read('small.bmp'), 'webp' => $this->files->read('small.webp'), 'gif' => $this->files->read('small.gif'),
            'jpg' => $jpeg, 'progressive' => $this->files->read('progressive.jpg'), 'tif' => $this->files->read('small.tif'),
            'pdf' => Files::pdf([['width' => 320.0, 'height' => 240.0, 'jpeg' => $jpeg, 'pixels' => [320, 240]]]),
            'svg' => Files::svg('<rect width="80" height="60"/><line x1="1" y1="2" x2="300" y2="200" stroke="#000"/>'),
            'dxf' => Files::dxf([[0, 0, 1000, 0], [1000, 0, 1000, 700]]),
        ];
    }

    /** @return iterable<string, array{string, string}> */
    private function cutShort(): iterable
    {
        foreach ($this->good() as $kind => $bytes) {
            foreach ([0, 3, 12, 40, intdiv(\strlen($bytes), 4), intdiv(\strlen($bytes), 2), \strlen($bytes) - 20] as $length) {
                yield "$kind cut after $length bytes" => [substr($bytes, 0, max(0, $length)), "cut.$kind"];
            }
        }
    }

    /** @return iterable<string, array{string, string}> */
    private function scribbledOver(): iterable
    {
        mt_srand(20_261_125);
        foreach ($this->good() as $kind => $bytes) {
            foreach ([8, 60, 200] as $from) {
                $scribbled = $bytes;
                for ($i = $from, $n = min(\strlen($bytes), $from + 64); $i < $n; ++$i) {
                    $scribbled[$i] = \chr(mt_rand(0, 255));
                }
                yield "$kind scribbled over from $from" => [$scribbled, "scribble.$kind"];
            }
        }
    }

    /** @return iterable<string, array{string, string}> */
    private function otherKinds(): iterable
    {
        $good = $this->good();
        yield 'PNG mark before a JPEG' => ["\x89PNG\r\n\x1A\n".$good['jpg'], 'a.png'];
        yield 'JPEG mark before a PNG' => ["\xFF\xD8\xFF".$good['png'], 'a.jpg'];
        yield 'TIFF mark before text' => ['II*'."\0".str_repeat('text ', 100), 'a.tif'];
        yield 'GIF mark before a PDF' => ['GIF89a'.$good['pdf'], 'a.gif'];
        yield 'BMP mark before zeros' => ["BM\0\0\0\0\0\0\0\0\0\0\0\0\x28\0\0\0".str_repeat("\0", 200), 'a.bmp'];
        yield 'HEIC mark alone' => ["\0\0\0\x18ftypheic\0\0\0\0mif1heic", 'a.heic'];
        yield 'AVIF mark alone' => ["\0\0\0\x18ftypavif\0\0\0\0mif1avif", 'a.avif'];
        yield 'WebP mark alone' => ["RIFF\xFF\xFF\xFF\xFFWEBPVP8 \xFF\xFF\xFF\xFF", 'a.webp'];
        foreach ([
            'HTML' => '<!doctype html><title>scan</title><script>alert(1)</script>', 'ZIP' => "PK\x03\x04".str_repeat("\0", 60), 'program' => "MZ\x90\0\x03".str_repeat("\0", 100), 'shell script' => "#!/bin/sh\nrm -rf /\n",
            'PHP' => '<?php system($_GET["c"]);', 'zeros' => str_repeat("\0", 5000), 'ones' => str_repeat("\xFF", 5000), 'text in UTF-16' => mb_convert_encoding('a drawing', 'UTF-16'), 'JSON' => '{"format":"zesty-plinth/plan"}',
            'PostScript' => "%!PS-Adobe-3.0\n(/etc/passwd) (r) file", 'instructions to a converter' => "push graphic-context\nviewbox 0 0 640 480\nimage over 0,0 0,0 'label:@/etc/passwd'\npop graphic-context", 'OpenEXR' => "\x76\x2f\x31\x01".str_repeat("\1", 50), 'FITS' => 'SIMPLE  =                    T'.str_repeat(' ', 2850),
        ] as $what => $bytes) {
            yield "$what for a picture" => [$bytes, 'scan.png'];
        }
    }

    /** @return iterable<string, array{string, string}> */
    private static function bombs(): iterable
    {
        foreach ([
            [30_000, 30_000],
            [60_000, 60_000],
            [0, 0],
            [0, 100],
            [1, 60_000],
            [60_000, 1],
            [2_147_483_647, 2_147_483_647],
            [16_000, 15_000],
            [4000, 3000],
        ] as [$w, $h]) {
            yield "PNG that claims $w × $h" => [Files::pngClaiming($w, $h), 'bomb.png'];
        }
        yield 'PNG of compressed nothing' => [Files::pngClaiming(15_000, 15_000, 15_001 * 4000), 'bomb.png'];
        foreach ([[100_000, 100_000], [1, 60_000], [0, 0], [20_000, 20_000]] as [$w, $h]) {
            yield "TIFF that claims $w × $h" => [Files::tiff($w, $h), 'bomb.tif'];
        }
        yield 'TIFF whose strip lies beyond its end' => [Files::tiff(1000, 1000, 100), 'bomb.tif'];
        yield 'TIFF whose pages go round in a ring' => [Files::tiff(10, 10, 100, 8), 'ring.tif'];
        $jpeg = "\xFF\xD8\xFF\xE0\0\x10JFIF\0\1\1\0\0\1\0\1\0\0\xFF\xC0\0\x11\x08\xFF\xDC\xFF\xDC\3\1\x22\0\2\x11\1\3\x11\1";
        yield 'JPEG that claims 65 500 × 65 500' => [$jpeg."\xFF\xDA\0\x0C\3\1\0\2\x11\3\x11\0\x3F\0", 'bomb.jpg'];
        yield 'GIF that claims 65 535 × 65 535' => [
            "GIF89a\xFF\xFF\xFF\xFF\x80\0\0\0\0\0\xFF\xFF\xFF,\0\0\0\0\xFF\xFF\xFF\xFF\0\2\2D\1\0;",
            'bomb.gif',
        ];
        yield 'BMP that claims two thousand million rows' => [
            'BM'.pack('VvvV', 100, 0, 0, 54).pack('VVVvvVVVVVV', 40, 10, 2_000_000_000, 1, 24, 0, 0, 0, 0, 0, 0),
            'bomb.bmp',
        ];
    }

    /** @return iterable<string, array{string, string}> */
    private static function badPdf(): iterable
    {
        $page = ['width' => 300.0, 'height' => 200.0];
        yield 'PDF without pages' => [Files::pdf([]), 'none.pdf'];
        yield 'PDF that claims 100 000 pages' => [Files::pdf([$page], 100_000), 'many.pdf'];
        yield 'PDF that claims −5 pages' => [Files::pdf([$page], -5), 'minus.pdf'];
        yield 'PDF with 300 pages' => [Files::pdf(array_fill(0, 300, $page)), '300.pdf'];
        foreach ([[0.0, 0.0], [0.001, 100.0], [1e9, 1e9], [14_400.0, 14_400.0], [3.0, 14_000.0], [-300.0, -200.0]] as [$w, $h]) {
            yield "PDF with a page of $w × $h points" => [Files::pdf([['width' => $w, 'height' => $h]]), 'size.pdf'];
        }
        yield 'PDF whose page tree is a ring' => [str_replace('/Kids [3 0 R]', '/Kids [2 0 R]', Files::pdf([$page])), 'ring.pdf'];
        yield 'PDF locked with a password' => [
            str_replace(
                '/Root 1 0 R',
                '/Root 1 0 R /ID [<00><00>] /Encrypt << /Filter /Standard /V 1 /R 2 /P -4 /O <'.str_repeat('ab', 32).'> /U <'.str_repeat('cd', 32).'> >>',
                Files::pdf([$page]),
            ),
            'locked.pdf',
        ];
        yield 'PDF that never stops drawing' => [
            Files::pdf([$page + ['content' => str_repeat('q ', 20_000).str_repeat('1 w 0 0 m 300 200 l S ', 4_000)]]),
            'long.pdf',
        ];
        yield 'PDF that reads another file' => [Files::pdf([$page + ['content' => '/F << /F (/etc/passwd) >> BDC EMC']]), 'other.pdf'];
        yield 'PDF whose table of contents lies' => [
            preg_replace('/startxref\n\d+/', "startxref\n999999", Files::pdf([$page])) ?? '',
            'lie.pdf',
        ];
        yield 'PDF mark alone' => ['%PDF-1.7', 'mark.pdf'];
    }

    /** @return iterable<string, array{string, string}> */
    private static function badSvg(): iterable
    {
        $laughs = '<!DOCTYPE svg [<!ENTITY a "ha">'.implode(
            '',
            array_map(static fn (int $i): string => '<!ENTITY '.\chr(97 + $i).' "'.str_repeat('&'.\chr(96 + $i).';', 10).'">', range(1, 9)),
        ).']>';
        yield 'SVG of a thousand million laughs' => [Files::svg('<text>&j;</text>', before: $laughs), 'laughs.svg'];
        yield 'SVG that reads a file as an entity' => [
            Files::svg('<text>&x;</text>', before: '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>'),
            'entity.svg',
        ];
        foreach ([
            'file:///etc/passwd',
            '/etc/passwd',
            '../../../../etc/hosts',
            'http://127.0.0.1/x.png',
            'data:image/svg+xml;base64,!!!',
        ] as $target) {
            yield "SVG that shows $target" => [
                Files::svg("<image xlink:href=\"$target\" width=\"10\" height=\"10\"/><rect width=\"5\" height=\"5\"/>"),
                'image.svg',
            ];
        }
        foreach ([
            'width="0" height="0"',
            'width="-5" height="10"',
            'width="1000000000" height="1000000000"',
            'width="1" height="90000"',
            'width="1e308" height="1e308"',
            'viewBox="0 0 0 0"',
            'width="nan" height="inf"',
            '',
        ] as $head) {
            yield "SVG of size “{$head}”" => [Files::svg('<rect width="1" height="1"/>', $head), 'size.svg'];
        }
        $uses = '<defs><g id="a0"><rect width="1" height="1"/></g>';
        for ($i = 1; $i < 12; ++$i) {
            $uses .= "<g id=\"a$i\">".str_repeat('<use xlink:href="#a'.($i - 1).'"/>', 10).'</g>';
        }
        yield 'SVG that uses itself ten times ten times over' => [Files::svg($uses.'</defs><use xlink:href="#a11"/>'), 'uses.svg'];
        yield 'SVG nested 50 000 deep' => [Files::svg(str_repeat('<g>', 50_000).str_repeat('</g>', 50_000)), 'deep.svg'];
        yield 'SVG with a script and a style from elsewhere' => [
            Files::svg('<script>alert(1)</script><style>@import url(http://127.0.0.1/x.css);</style><rect width="9" height="9"/>'),
            'script.svg',
        ];
        yield 'SVG that is no XML' => [Files::svg('<rect width="1"'), 'torn.svg'];
    }

    /** @return iterable<string, array{string, string}> */
    private static function badDxf(): iterable
    {
        yield 'DXF without lines' => [Files::dxf([]), 'empty.dxf'];
        yield 'DXF of one point' => [Files::dxf([[5, 5, 5, 5]]), 'point.dxf'];
        yield 'DXF out of this world' => [Files::dxf([[0, 0, 1e308, -1e308]]), 'far.dxf'];
        yield 'DXF with words for numbers' => [str_replace("10\n0", "10\nfoo", Files::dxf([[0, 0, 10, 10]])), 'words.dxf'];
        yield 'DXF in an unheard-of unit' => [Files::dxf([[0, 0, 10, 10]], 77), 'unit.dxf'];
        yield 'DXF that never ends a section' => ["0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n", 'open.dxf'];
        yield 'DXF whose block holds itself' => [
            "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nB\n0\nINSERT\n8\n0\n2\nB\n10\n0\n20\n0\n0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nINSERT\n8\n0\n2\nB\n10\n0\n20\n0\n0\nENDSEC\n0\nEOF\n",
            'self.dxf',
        ];
    }

    /** @return iterable<string, array{string, string}> */
    private function badNames(): iterable
    {
        $png = $this->good()['png'];
        foreach ([
            '../../../etc/passwd',
            '..\\..\\boot.ini',
            "tab\tand\x01bell.png",
            str_repeat('long', 100).'.png',
            "\u{202E}gnp.exe",
            '.htaccess',
            '...',
            'CON',
            '<img src=x onerror=alert(1)>.png',
            "quote'\"; DROP TABLE page.png",
            'überbau.png',
            "\xC3\x28 broken.png",
            '%2e%2e%2fpasswd',
            'a/b/c.png',
        ] as $name) {
            yield 'name '.json_encode($name, \JSON_INVALID_UTF8_SUBSTITUTE) => [$png, $name];
        }
    }
}
