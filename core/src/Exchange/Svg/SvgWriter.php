<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Svg;

use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkPicture;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\PrintedSheet;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\Tiles;

/** Writes a sheet as SVG 1.1 whose user unit is a millimetre of paper: what is printed from it is as large as it says. */
final class SvgWriter
{
    /** @param bool $withLetters whether its letters go with it, for whoever has not got them */
    public static function write(PrintedSheet $sheet, bool $withLetters = false): string
    {
        return self::document($sheet->width, $sheet->height, $sheet->title, self::groups($sheet), $withLetters);
    }

    /**
     * A piece of a sheet for a small printer.
     *
     * @param float $wide mm of its paper
     * @param float $high mm of its paper
     * @param array{float, float, string} $piece left and top of what it shows, mm of the sheet, and its name
     */
    public static function tile(PrintedSheet $sheet, float $wide, float $high, array $piece): string
    {
        [$left, $top, $name] = $piece;
        $margin = Tiles::MARGIN_MM;
        $inner = \sprintf(
            '<svg x="%1$s" y="%1$s" width="%2$s" height="%3$s" viewBox="%4$s %5$s %2$s %3$s">'."\n%6\$s</svg>\n",
            self::number($margin),
            self::number($wide - 2.0 * $margin),
            self::number($high - 2.0 * $margin),
            self::number($left),
            self::number($top),
            self::groups($sheet),
        );

        return self::document(
            $wide,
            $high,
            "$sheet->title, $name",
            $inner.self::ink(Tiles::marks($wide, $high, "$sheet->title, $name")),
            false,
        );
    }

    private static function document(float $width, float $height, string $title, string $inside, bool $withLetters): string
    {
        return \sprintf(
            '<?xml version="1.0" encoding="UTF-8"?>'."\n"
            .'<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" '
            .'width="%1$smm" height="%2$smm" viewBox="0 0 %1$s %2$s" xml:lang="en">'."\n"
            ."<title>%3\$s</title>\n%4\$s%5\$s</svg>\n",
            self::number($width),
            self::number($height),
            self::escaped($title),
            $withLetters ? self::letters() : '',
            $inside,
        );
    }

    private static function groups(PrintedSheet $sheet): string
    {
        $written = '';
        foreach ($sheet->groups as $k => $group) {
            $clip = '';
            if (null !== $group->clip) {
                [$x1, $y1, $x2, $y2] = $group->clip;
                $written .= \sprintf(
                    '<clipPath id="window%d"><rect x="%s" y="%s" width="%s" height="%s"/></clipPath>'."\n",
                    $k,
                    self::number($x1),
                    self::number($y1),
                    self::number($x2 - $x1),
                    self::number($y2 - $y1),
                );
                $clip = " clip-path=\"url(#window$k)\"";
            }
            $box = '' === $group->key ? '' : implode(' ', array_map(self::number(...), $group->bounds() ?? []));
            $written .= '<g'.('' === $group->key ? '' : ' data-view="'.self::escaped($group->key)."\" data-box=\"$box\"").">\n"
                ."<g$clip>\n".self::ink($group->ink)."</g>\n".self::ink($group->beside)."</g>\n";
        }

        return $written;
    }

    private static function ink(SheetInk $ink): string
    {
        return implode('', [
            ...array_map(self::picture(...), $ink->pictures),
            ...array_map(self::area(...), $ink->areas),
            '<g fill="none" stroke="#000" stroke-linejoin="round" stroke-linecap="round">'."\n",
            ...array_map(self::line(...), $ink->lines),
            "</g>\n",
            \sprintf('<g font-family="%s" fill="#000">'."\n", PaperLetters::FAMILY),
            ...array_map(self::text(...), $ink->texts),
            "</g>\n",
        ]);
    }

    private static function picture(InkPicture $picture): string
    {
        return '' === $picture->bytes ? '' : \sprintf(
            '<image width="1" height="1" preserveAspectRatio="none" transform="matrix(%s)" xlink:href="data:%s;base64,%s"/>'."\n",
            implode(' ', array_map(self::number(...), [...$picture->right, ...$picture->down, ...$picture->origin])),
            $picture->type,
            base64_encode($picture->bytes),
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
            "<path d=\"%s\" fill=\"#%02x%02x%02x\" fill-rule=\"evenodd\"/>\n",
            implode('', array_map(static fn (array $ring): string => self::path($ring, true), $area->rings)),
            ...($area->colour ?? [$grey, $grey, $grey]),
        );
    }

    private static function line(InkLine $line): string
    {
        $dashes = array_map(static fn (float $part): string => self::number($part * $line->width), $line->dashes);

        return \sprintf(
            "<path d=\"%s\" stroke-width=\"%s\"%s%s%s/>\n",
            self::path($line->points, $line->closed),
            self::number($line->width),
            null === $line->colour ? '' : \sprintf(' stroke="#%02x%02x%02x"', ...$line->colour),
            [] === $dashes ? '' : ' stroke-linecap="butt" stroke-dasharray="'.implode(' ', $dashes).'"',
            self::key($line->key),
        );
    }

    private static function text(InkText $text): string
    {
        $letters = $text->bold ? PaperLetters::bold() : PaperLetters::regular();
        $words = $letters->written($text->words);
        $leftOut = $letters->leftOut($text->words);

        return '' === $words.$leftOut ? '' : \sprintf(
            "<text x=\"%s\" y=\"%s\" font-size=\"%s\"%s%s%s%s%s>%s</text>\n",
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
            self::key($text->key),
            '' === $leftOut ? '' : ' data-left-out="'.self::escaped($leftOut).'"',
            self::escaped($words),
        );
    }

    private static function key(string $key): string
    {
        return '' === $key ? '' : ' data-key="'.self::escaped($key).'"';
    }

    /** @param list<array{float, float}> $points */
    private static function path(array $points, bool $closed): string
    {
        $path = '';
        foreach ($points as [$x, $y]) {
            $path .= ('' === $path ? 'M' : 'L').(round($x, 4) + 0.0).' '.(round($y, 4) + 0.0);
        }

        return $closed ? $path.'Z' : $path;
    }

    /** To a ten thousandth of a millimetre. */
    private static function number(float $mm): string
    {
        return (string) (round($mm, 4) + 0.0); // 0 has no sign
    }

    /** Control characters are no text in XML. */
    private static function escaped(string $text): string
    {
        return htmlspecialchars((string) preg_replace('/[\x00-\x08\x0B\x0C\x0E-\x1F\x7F]/u', '', $text), \ENT_XML1 | \ENT_QUOTES, 'UTF-8');
    }
}
