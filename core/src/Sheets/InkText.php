<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** Words on a sheet: their foot's middle, beginning or end stands at a place. */
final readonly class InkText
{
    /** Room above and below capitals that belongs to a line of words, parts of its height: what hangs below, and accents. */
    private const BELOW = 0.3;
    private const ABOVE = 0.1;

    /**
     * @param float $x mm, from the sheet's left
     * @param float $y mm, from its top
     * @param float $height mm, nominal
     * @param 'start'|'middle'|'end' $anchor
     * @param float $degrees counter-clockwise
     * @param string $key of what is told, so that it can be pointed at
     */
    public function __construct(
        public float $x,
        public float $y,
        public string $words,
        public float $height,
        public string $anchor = 'start',
        public float $degrees = 0.0,
        public bool $bold = false,
        public string $key = '',
    ) {
    }

    /** @return array{float, float} how far a line of words of a height reaches over its foot and below, mm */
    public static function tall(float $height): array
    {
        return [(1.0 + self::ABOVE) * $height, self::BELOW * $height];
    }

    /** @return float mm */
    public function width(): float
    {
        return ($this->bold ? PaperLetters::bold() : PaperLetters::regular())->width($this->words, $this->height);
    }

    /** @return non-empty-list<array{float, float}> the corners of the room that it takes */
    public function room(): array
    {
        $width = $this->width();
        $left = match ($this->anchor) {
            'start' => 0.0,
            'middle' => -$width / 2.0,
            'end' => -$width,
        };
        if (0.0 === $this->degrees) {
            // Most words lie level, and many places are tried.
            [$from, $to] = [$this->x + $left, $this->x + $left + $width];
            [$foot, $top] = [$this->y + self::BELOW * $this->height, $this->y - (1.0 + self::ABOVE) * $this->height];

            return [[$from, $foot], [$to, $foot], [$to, $top], [$from, $top]];
        }
        [$cos, $sin] = [cos(deg2rad($this->degrees)), sin(deg2rad($this->degrees))];
        $corners = [];
        foreach ([[0.0, self::BELOW], [$width, self::BELOW], [$width, -1.0 - self::ABOVE], [0.0, -1.0 - self::ABOVE]] as [$along, $down]) {
            [$u, $v] = [$left + $along, $down * $this->height];
            $corners[] = [$this->x + $u * $cos + $v * $sin, $this->y - $u * $sin + $v * $cos];
        }

        return $corners;
    }
}
