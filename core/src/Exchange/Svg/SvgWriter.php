<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Svg;

use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\SheetInk;

/** Writes a sheet as SVG 1.1 whose user unit is a millimetre of paper: what is printed from it is as large as it says. */
final class SvgWriter
{
    /**
     * @param float $width mm
     * @param float $height mm
     * @param bool $withLetters whether its letters go with it, for whoever has not got them
     */
    public static function write(SheetInk $ink, float $width, float $height, string $title, bool $withLetters = false): string
    {
        return \sprintf(
            '<?xml version="1.0" encoding="UTF-8"?>'."\n"
            .'<svg xmlns="http://www.w3.org/2000/svg" width="%1$smm" height="%2$smm" viewBox="0 0 %1$s %2$s" xml:lang="en">'."\n"
            ."<title>%3\$s</title>\n%4\$s</svg>\n",
            self::number($width),
            self::number($height),
            self::escaped($title),
            implode('', [
                $withLetters ? self::letters() : '',
                ...array_map(self::area(...), $ink->areas),
                '<g fill="none" stroke="#000" stroke-linejoin="round" stroke-linecap="round">'."\n",
                ...array_map(self::line(...), $ink->lines),
                "</g>\n",
                \sprintf('<g font-family="%s" fill="#000">'."\n", PaperLetters::FAMILY),
                ...array_map(self::text(...), $ink->texts),
                "</g>\n",
            ]),
        );
    }

    private static function letters(): string
    {
        $faces = [];
        foreach (PaperLetters::fonts() as $weight => $font) {
            $faces[] = \sprintf(
                '@font-face{font-family:"%s";font-weight:%d;src:url(data:font/ttf;base64,%s)}',
                PaperLetters::FAMILY,
                $weight,
                base64_encode($font),
            );
        }

        return '<style>'.implode('', $faces)."</style>\n";
    }

    private static function area(InkArea $area): string
    {
        $grey = (int) round(255.0 * $area->grey);

        return \sprintf(
            "<path d=\"%s\" fill=\"#%2\$02x%2\$02x%2\$02x\" fill-rule=\"evenodd\"/>\n",
            implode('', array_map(static fn (array $ring): string => self::path($ring, true), $area->rings)),
            $grey,
        );
    }

    private static function line(InkLine $line): string
    {
        $dashes = array_map(static fn (float $part): string => self::number($part * $line->width), $line->dashes);

        return \sprintf(
            "<path d=\"%s\" stroke-width=\"%s\"%s/>\n",
            self::path($line->points, $line->closed),
            self::number($line->width),
            [] === $dashes ? '' : ' stroke-linecap="butt" stroke-dasharray="'.implode(' ', $dashes).'"',
        );
    }

    private static function text(InkText $text): string
    {
        $letters = $text->bold ? PaperLetters::bold() : PaperLetters::regular();
        $words = $letters->written($text->words);

        return '' === $words ? '' : \sprintf(
            "<text x=\"%s\" y=\"%s\" font-size=\"%s\"%s%s%s>%s</text>\n",
            self::number($text->x),
            self::number($text->y),
            self::number($letters->size($text->height)),
            $text->bold ? ' font-weight="600"' : '',
            'start' === $text->anchor ? '' : " text-anchor=\"$text->anchor\"",
            0.0 === $text->degrees ? '' : \sprintf(
                ' transform="rotate(%s %s %s)"',
                self::number(-$text->degrees),
                self::number($text->x),
                self::number($text->y),
            ),
            self::escaped($words),
        );
    }

    /** @param list<array{float, float}> $points */
    private static function path(array $points, bool $closed): string
    {
        $places = array_map(static fn (array $p): string => self::number($p[0]).' '.self::number($p[1]), $points);

        return 'M'.implode('L', $places).($closed ? 'Z' : '');
    }

    /** To a ten thousandth of a millimetre. */
    private static function number(float $mm): string
    {
        $text = rtrim(rtrim(number_format($mm, 4, '.', ''), '0'), '.');

        return '-0' === $text ? '0' : $text;
    }

    /** Control characters are no text in XML. */
    private static function escaped(string $text): string
    {
        return htmlspecialchars((string) preg_replace('/[\x00-\x08\x0B\x0C\x0E-\x1F\x7F]/u', '', $text), \ENT_XML1 | \ENT_QUOTES, 'UTF-8');
    }
}
