<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** A class of fire resistance: free text, of which case, spaces and dashes do not count, with its colour and hatch. */
final readonly class FireClass
{
    /** Told apart with any kind of colour vision: six of Okabe and Ito, "Color Universal Design" (2008), from memory, and two dark ones. */
    public const COLOURS = ['#d55e00', '#0072b2', '#009e73', '#cc79a7', '#e69f00', '#56b4e9', '#4400aa', '#222222'];

    /**
     * @param string $name as it was spelled first
     * @param string $colour # and six digits from 0 to f
     */
    public function __construct(public string $id, public string $name, public string $colour, public Hatch $hatch)
    {
    }

    /** The same for every spelling of one class; of letters and digits alone. */
    public static function key(string $typed): string
    {
        $normal = \Normalizer::normalize($typed, \Normalizer::NFKC);

        return mb_strtolower((string) preg_replace('/[\s\p{Z}\p{Pd}_\p{Cf}]+/u', '', \is_string($normal) ? $normal : $typed));
    }

    /** @return array{int, int, int} its colour as red, green and blue of 255 */
    public function rgb(): array
    {
        $rgb = (int) hexdec(substr($this->colour, 1));

        return [$rgb >> 16 & 0xFF, $rgb >> 8 & 0xFF, $rgb & 0xFF];
    }

    /** @return array{int, int, int} so much of it on white that words are read on it */
    public function tint(): array
    {
        return array_map(static fn (int $c): int => (int) round(255.0 - 0.14 * (255.0 - $c)), $this->rgb());
    }
}
