<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

/**
 * Files that try to reach something outside themselves when they are opened: an address on the network, a file, the database, a
 * program. Each kind of reach is tried with each target; what is found to be a drawing all the same must not show it.
 */
final readonly class ReachingFiles
{
    public function __construct(private string $url, private string $file, private string $database)
    {
    }

    /** @return iterable<string, array{string, string}> what it tries → the bytes and the name it is sent under */
    public function all(): iterable
    {
        $targets = [
            'an address' => $this->url,
            'a file' => $this->file,
            'a file by its address' => 'file://'.$this->file,
            'the database' => $this->database,
            'a program' => "|/usr/bin/touch $this->file.run",
        ];
        foreach ($targets as $what => $target) {
            $xml = htmlspecialchars($target, \ENT_XML1 | \ENT_QUOTES);
            foreach (self::drawings($target, $xml) as $how => [$bytes, $name]) {
                yield "$how to $what" => [$bytes, $name];
            }
        }
    }

    /** @return iterable<string, array{string, string}> */
    private static function drawings(string $target, string $xml): iterable
    {
        // Virtual sources: descriptions that name where the data is to be fetched from.
        $source = "<OGRVRTDataSource><OGRVRTLayer name=\"a\"><SrcDataSource>$xml</SrcDataSource><SrcLayer>account</SrcLayer></OGRVRTLayer></OGRVRTDataSource>";
        yield 'DXF in which a virtual source hides' => ["0\nSECTION\n2\nENTITIES\n999\n$source\n0\nENDSEC\n0\nEOF\n", 'a.dxf'];
        yield 'DXF head before a virtual source' => ["999\n$source\n0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n", 'a.dxf'];
        yield 'DXF of lines before a virtual source' => [Files::dxf([[0, 0, 1000, 0], [1000, 0, 1000, 700]]).$source, 'a.dxf'];
        yield 'virtual source alone' => [$source, 'a.dxf'];
        yield 'virtual raster' => [
            "<VRTDataset rasterXSize=\"64\" rasterYSize=\"64\"><VRTRasterBand dataType=\"Byte\" band=\"1\"><SimpleSource><SourceFilename>$xml</SourceFilename></SimpleSource></VRTRasterBand></VRTDataset>",
            'a.tif',
        ];
        yield 'DXF with an image and a reference to another drawing' => [
            "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nX\n70\n4\n1\n$target\n0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n9\n21\n5\n0\nINSERT\n2\nX\n10\n0\n20\n0\n0\nENDSEC\n0\nSECTION\n2\nOBJECTS\n0\nIMAGEDEF\n1\n$target\n0\nENDSEC\n0\nEOF\n",
            'a.dxf',
        ];
        // Pictures that show, style or include what lies elsewhere.
        foreach ([
            'image' => "<image xlink:href=\"$xml\" href=\"$xml\" width=\"600\" height=\"400\"/>", 'use' => "<use xlink:href=\"$xml#a\"/>", 'style sheet' => "<style>@import url('$xml'); rect { fill: url('$xml') }</style><rect width=\"9\" height=\"9\"/>",
            'filter' => "<filter id=\"f\"><feImage xlink:href=\"$xml\"/></filter><rect width=\"400\" height=\"300\" filter=\"url(#f)\"/>", 'font' => "<style>@font-face { font-family: f; src: url('$xml') } text { font-family: f }</style><text y=\"20\">a</text>",
            'mask' => "<rect width=\"400\" height=\"300\" mask=\"url($xml#m)\"/>", 'include' => "<xi:include xmlns:xi=\"http://www.w3.org/2001/XInclude\" href=\"$xml\" parse=\"text\"/>", 'foreign object' => "<foreignObject width=\"9\" height=\"9\"><iframe src=\"$xml\"/></foreignObject>",
            'pattern' => "<pattern id=\"p\" xlink:href=\"$xml#p\" width=\"9\" height=\"9\"/><rect width=\"400\" height=\"300\" fill=\"url(#p)\"/>", 'text path' => "<text><textPath xlink:href=\"$xml#t\">a</textPath></text>", 'colour profile' => "<color-profile name=\"c\" xlink:href=\"$xml\"/><rect width=\"9\" height=\"9\"/>",
            'data in data' => '<image width="600" height="400" xlink:href="data:image/svg+xml;base64,'.base64_encode(
                Files::svg("<image xlink:href=\"$xml\" width=\"600\" height=\"400\"/>"),
            ).'"/>',
        ] as $how => $body) {
            yield "SVG with a $how that leads" => [Files::svg($body), 'a.svg'];
        }
        yield 'SVG whose document type leads' => [
            Files::svg('<rect width="9" height="9"/>', before: "<!DOCTYPE svg SYSTEM \"$xml\">"),
            'a.svg',
        ];
        yield 'SVG whose entity leads' => [
            Files::svg('<text y="20">&x;</text>', before: "<!DOCTYPE svg [<!ENTITY x SYSTEM \"$xml\">]>"),
            'a.svg',
        ];
        yield 'SVG whose parameter entity leads' => [
            Files::svg('<rect width="9" height="9"/>', before: "<!DOCTYPE svg [<!ENTITY % x SYSTEM \"$xml\"> %x;]>"),
            'a.svg',
        ];
        yield 'SVG whose style sheet instruction leads' => [
            Files::svg('<rect width="9" height="9"/>', before: "<?xml-stylesheet type=\"text/css\" href=\"$xml\"?>"),
            'a.svg',
        ];
        // Pages with actions, outside streams and pictures kept elsewhere.
        $page = ['width' => 300.0, 'height' => 200.0];
        $text = strtr($target, ['(' => '\\(', ')' => '\\)']);
        foreach ([
            'a stream kept elsewhere' => "/F << /F ($text) /FS /URL >> BDC EMC", 'a reference picture' => "/Ref << /F << /F ($text) >> /Page 1 >> Do", 'PostScript' => "/PS << /F ($text) >> DP",
        ] as $how => $content) {
            yield "PDF with $how that leads" => [Files::pdf([$page + ['content' => $content]]), 'a.pdf'];
        }
        foreach ([
            'URI' => "/S /URI /URI ($text)",
            'launch' => "/S /Launch /F ($text)",
            'other document' => "/S /GoToR /F ($text) /D [0 /Fit]",
            'form' => "/S /SubmitForm /F << /FS /URL /F ($text) >>",
            'script' => "/S /JavaScript /JS (app.launchURL\\('$text'\\))",
            'import' => "/S /ImportData /F ($text)",
        ] as $how => $action) {
            yield "PDF with a $how action that leads" => [
                str_replace('/Type /Catalog', "/Type /Catalog /OpenAction << /Type /Action $action >>", Files::pdf([$page])),
                'a.pdf',
            ];
        }
        // Languages of converters, under every name.
        yield 'drawing instructions with a picture' => [
            "push graphic-context\nviewbox 0 0 640 480\nimage over 0,0 0,0 '$target'\npop graphic-context",
            'a.svg',
        ];
        yield 'script of a converter' => [
            "<?xml version=\"1.0\"?><image><read filename=\"$xml\"/><write filename=\"$xml.out\"/></image>",
            'a.svg',
        ];
        yield 'PostScript program' => ["%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 300 200\n($text) (r) file\n%PDF-1.4\n", 'a.pdf'];
        yield 'BMP mark before drawing instructions' => [
            'BM'.pack('VvvV', 100, 0, 0, 54).pack('V', 40)."\npush graphic-context\nimage over 0,0 0,0 '$target'",
            'a.bmp',
        ];
        yield 'TIFF mark before a virtual raster' => ["II*\0<VRTDataset><SourceFilename>$xml</SourceFilename></VRTDataset>", 'a.tif'];
        yield 'playlist for a picture' => ["#EXTM3U\n#EXTINF:1,\n$target\n", 'a.png'];
        yield 'name that is a command' => [Files::svg('<rect width="9" height="9"/>'), mb_substr($target, 0, 200).'[page=1]'];
    }
}
