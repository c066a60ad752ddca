<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** What surfaces are finished with: a colour, or tiles or boards of true size. */
final readonly class Finish
{
    public const LARGEST_MM = 20_000.0;
    /** by how much of a piece each row lies further than the one before */
    public const BONDS = ['stacked' => 1, 'half' => 2, 'third' => 3];

    /**
     * @param string $colour `#rrggbb`
     * @param float $width of a tile, or of a board across the way it runs, mm
     * @param float $height of a tile; of a board its length, 0 without an end
     * @param float $joint between them, mm
     * @param string $bond one of BONDS
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $colour,
        public FinishPattern $pattern = FinishPattern::Plain,
        public float $width = 0.0,
        public float $height = 0.0,
        public float $joint = 0.0,
        public string $bond = 'stacked',
    ) {
        if (1 !== preg_match('/^#[0-9a-f]{6}$/', $colour)) {
            throw UnusableValue::malformed("finish $id/colour", $colour, '# and six digits from 0 to f');
        }
        if (FinishPattern::Plain !== $pattern) {
            Checked::size("finish $id/width", $width, self::LARGEST_MM);
            Checked::size("finish $id/height", FinishPattern::Boards === $pattern && 0.0 === $height ? null : $height, self::LARGEST_MM);
        }
        Checked::within("finish $id/joint", $joint, 1000.0);
    }

    /**
     * What repeats: its size, and the pieces in it, corners at least and most. Rows of tiles run along u, boards do.
     *
     * @return array{size: array{float, float}, pieces: list<array{float, float, float, float}>}|null mm; null of a plain one
     */
    public function repeat(): ?array
    {
        if (FinishPattern::Plain === $this->pattern) {
            return null;
        }
        [$long, $high] = FinishPattern::Tiles === $this->pattern ? [$this->width, $this->height] : [$this->height, $this->width];
        $isEndless = 0.0 === $long;
        [$u, $v] = [$isEndless ? $high : $long + $this->joint, $high + $this->joint];
        $rows = $isEndless ? 1 : self::BONDS[$this->bond] ?? 1;
        $pieces = [];
        for ($row = 0; $row < $rows; ++$row) {
            [$low, $top] = [$row * $v, $row * $v + $high];
            $from = $u * $row / $rows;
            if ($isEndless) {
                $pieces[] = [0.0, $low, $u, $top];
                continue;
            }
            $to = $from + $long;
            $pieces[] = [$from, $low, min($to, $u), $top];
            if ($to > $u) {
                $pieces[] = [0.0, $low, $to - $u, $top];
            }
        }

        return ['size' => [$u, $v * $rows], 'pieces' => $pieces];
    }
}
