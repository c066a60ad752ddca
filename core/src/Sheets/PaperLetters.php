<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/**
 * The letters of print sheets: how wide words are in them. Their nominal height is that of capitals (ISO 3098-1).
 *
 * Widths are read off the font itself (OpenType: tables cmap, hmtx, OS/2); nothing is drawn closer than that.
 */
final class PaperLetters
{
    /** Nominal heights of ISO 3098-1, mm. */
    public const HEIGHTS = [2.5, 3.5, 5.0, 7.0];
    /** As families and weights are named where a sheet is printed. */
    public const FAMILY = 'Public Sans';
    private const FOLDER = __DIR__.'/../../fonts/';
    /** by weight */
    private const FILES = [400 => 'PublicSans-Regular.ttf', 600 => 'PublicSans-SemiBold.ttf'];

    private const MOST_KNOWN = 20_000;

    /** @var array<string, int> how wide words are that were asked for, font units: a figure is tried at many places */
    private array $units = [];
    private static ?self $regular = null;
    private static ?self $bold = null;

    /**
     * @param array<int, int> $glyphs by code point
     * @param list<int> $advances by glyph, font units
     */
    private function __construct(
        private readonly array $glyphs,
        private readonly array $advances,
        private readonly int $em,
        private readonly int $capitals,
    ) {
    }

    public static function regular(): self
    {
        return self::$regular ??= self::read(self::FILES[400]);
    }

    public static function bold(): self
    {
        return self::$bold ??= self::read(self::FILES[600]);
    }

    /** @return float mm, of words so high */
    public function width(string $words, float $height): float
    {
        if (!isset($this->units[$words])) {
            $units = 0;
            foreach (mb_str_split($this->written($words)) as $letter) {
                $units += $this->advances[$this->glyphs[mb_ord($letter)]];
            }
            if (\count($this->units) > self::MOST_KNOWN) {
                $this->units = [];
            }
            $this->units[$words] = $units;
        }

        return $this->units[$words] / $this->em * $this->size($height);
    }

    /** @return float mm, the size of the font at which capitals are so high */
    public function size(float $height): float
    {
        return $height * $this->em / $this->capitals;
    }

    /** Spaces of every width are one; what the font has no letters for is left out. */
    public function written(string $words): string
    {
        $plain = (string) preg_replace('/[\x{00A0}\x{2000}-\x{200A}\x{202F}]/u', ' ', $words);

        return implode('', array_filter(mb_str_split($plain), fn (string $c): bool => isset($this->glyphs[mb_ord($c)])));
    }

    /** Letters that it has none of, each once, as they come: whoever prints is told. */
    public function leftOut(string $words): string
    {
        $letters = array_unique(mb_str_split((string) preg_replace('/[\s\x{00A0}\x{2000}-\x{200F}\x{202F}]/u', '', $words)));

        return implode('', array_filter($letters, fn (string $c): bool => !isset($this->glyphs[mb_ord($c)])));
    }

    /** @return array<int, string> the fonts themselves, by weight */
    public static function fonts(): array
    {
        return array_map(static fn (string $name): string => (string) file_get_contents(self::FOLDER.$name), self::FILES);
    }

    private static function read(string $name): self
    {
        $font = (string) file_get_contents(self::FOLDER.$name);
        $tables = [];
        for ($i = 0; $i < self::number($font, 4); ++$i) {
            $at = 12 + 16 * $i;
            $tables[substr($font, $at, 4)] = self::long($font, $at + 8);
        }
        $metrics = self::number($font, $tables['hhea'] + 34);
        $advances = [];
        for ($i = 0; $i < $metrics; ++$i) {
            $advances[] = self::number($font, $tables['hmtx'] + 4 * $i);
        }
        $count = self::number($font, $tables['maxp'] + 4);
        // Glyphs after the last metric are as wide as that.
        $advances = array_pad($advances, $count, $advances[$metrics - 1] ?? 0);

        return new self(
            self::letters($font, $tables['cmap']),
            $advances,
            self::number($font, $tables['head'] + 18),
            self::number($font, $tables['OS/2'] + 88),
        );
    }

    /** @return array<int, int> glyphs by code point, of the table's segments (format 4) */
    private static function letters(string $font, int $cmap): array
    {
        $letters = [];
        for ($i = 0; $i < self::number($font, $cmap + 2); ++$i) {
            $at = $cmap + self::long($font, $cmap + 4 + 8 * $i + 4);
            if (4 !== self::number($font, $at)) {
                continue;
            }
            $twice = self::number($font, $at + 6);
            for ($k = 0; $k < $twice; $k += 2) {
                $last = self::number($font, $at + 14 + $k);
                $first = self::number($font, $at + 16 + $twice + $k);
                $delta = self::number($font, $at + 16 + 2 * $twice + $k);
                $offsetAt = $at + 16 + 3 * $twice + $k;
                $offset = self::number($font, $offsetAt);
                for ($code = $first; $code <= $last && $code < 0xFFFF; ++$code) {
                    $glyph = 0 === $offset ? $code + $delta : self::number($font, $offsetAt + $offset + 2 * ($code - $first));
                    $letters[$code] = (0 === $offset || 0 === $glyph ? $glyph : $glyph + $delta) & 0xFFFF;
                }
            }
        }

        return array_filter($letters, static fn (int $glyph): bool => $glyph > 0);
    }

    private static function number(string $font, int $at): int
    {
        return \ord($font[$at]) << 8 | \ord($font[$at + 1]);
    }

    private static function long(string $font, int $at): int
    {
        return self::number($font, $at) << 16 | self::number($font, $at + 2);
    }
}
