<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Units\Exception\UnitsException;
use Plinth\Core\Units\Length;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;

/** What a recognised text says as a figured dimension, if it is one. */
final class WrittenLength
{
    /** Letters that recognisers take figures for. */
    private const FIGURES = [
        'O' => '0',
        'o' => '0',
        'Q' => '0',
        'I' => '1',
        'l' => '1',
        '|' => '1',
        'Z' => '2',
        'S' => '5',
        's' => '5',
        'B' => '8',
        '°' => '0',
    ];
    /** marks that recognisers write for feet and inches */
    private const QUOTES = [
        '’' => "'",
        '‘' => "'",
        '`' => "'",
        '′' => "'",
        '”' => '"',
        '“' => '"',
        '″' => '"',
        '„' => '"',
        "''" => '"',
        '—' => '-',
        '–' => '-',
        '_' => '-',
        '~' => '-',
    ];
    /** Figured dimensions are no shorter and no longer than this, mm. */
    private const BOUNDS_MM = [20.0, 300_000.0];

    /** @return array{string, Length}|null as it was read once slips of recognition are set right, and its length */
    public static function of(string $text): ?array
    {
        $text = trim(strtr($text, self::QUOTES), " \t.,;:*'");
        $digits = preg_match_all('/\d/', $text);
        $letters = preg_match_all('/[A-Za-z|°]/', $text);
        if ($digits < 1 || $letters > 1 || ($letters > 0 && $digits < 2)) {
            return null;
        }
        $text = strtr($text, self::FIGURES);
        // A trailing quote was trimmed with the dirt: feet and inches end with one.
        $isImperial = 1 === preg_match('/^\d+\s*\'\s*-?\s*\d*/', $text) && str_contains($text, "'");
        if ($isImperial) {
            $text = preg_replace('/\s*\'\s*-?\s*/', "'-", rtrim($text, '"')) ?? $text;
            if (1 !== preg_match('/^\d+\'-(\d{1,2})( \d\/\d{1,2})?$/', $text)) {
                return null;
            }

            return self::parsed($text.'"', LengthUnit::Foot);
        }
        if (1 === preg_match('/^\d{1,3}\.\d{1,3}$/', $text)) {
            return self::parsed($text, LengthUnit::Metre);
        }
        if (1 === preg_match('/^\d{1,3}[,. ]\d{3}$|^\d{2,6}$/', $text)) {
            $parsed = self::parsed(str_replace([',', '.', ' '], '', $text), LengthUnit::Millimetre);

            return null === $parsed ? null : [$text, $parsed[1]];
        }
        if (1 === preg_match('/^\d{1,3},\d{2}$/', $text)) {
            return self::parsed($text, LengthUnit::Metre);
        }

        return null;
    }

    /** @return array{string, Length}|null */
    private static function parsed(string $text, LengthUnit $unit): ?array
    {
        try {
            $length = LengthParser::parse($text, $unit);
        } catch (UnitsException) {
            return null;
        }

        return $length->mm >= self::BOUNDS_MM[0] && $length->mm <= self::BOUNDS_MM[1] ? [$text, $length] : null;
    }
}
