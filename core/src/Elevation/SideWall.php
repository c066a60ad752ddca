<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

use Plinth\Core\Plan\Model\Wall;

/** A straight wall as it is looked at on a side, and what of it a place on the side is. */
final readonly class SideWall
{
    /** Walls that run further off the side are seen too much aslant to say what stands in them: cosine. */
    private const ALONG = 0.5;

    private function __construct(
        public Wall $wall,
        public float $floor,
        public float $ceiling,
        private float $from,
        private float $cos,
        public float $behind,
    ) {
    }

    /** @return self|null null where it is curved, or does not run along the side */
    public static function of(Wall $wall, SideLine $line, float $floor, float $ceiling): ?self
    {
        $length = $wall->length();
        if (0.0 !== $wall->rise || $length <= 0.0) {
            return null;
        }
        [$from, $to] = [$line->along($wall->from), $line->along($wall->to)];
        $cos = ($to - $from) / $length;

        return abs($cos) < self::ALONG ? null : new self($wall, $floor, $ceiling, $from, $cos, min(
            $line->behind($wall->from),
            $line->behind($wall->to),
        ));
    }

    /** Whether an opening there would stand in it. */
    public function holds(SideOpening $opening): bool
    {
        $offset = $this->offset($opening);
        $middle = ($opening->sill + $opening->head) / 2.0;

        return $offset >= 0.0 && $offset + $this->width($opening) <= $this->wall->length()
            && $middle > $this->floor && $middle < $this->ceiling;
    }

    /** @return float mm along the wall, from its start to the near edge of an opening */
    public function offset(SideOpening $opening): float
    {
        return ($this->cos > 0.0 ? $opening->left - $this->from : $opening->right - $this->from) / $this->cos;
    }

    /** @return float mm, of an opening in the wall that is as wide on the side as another one */
    public function width(SideOpening $opening): float
    {
        return $opening->width() / abs($this->cos);
    }

    /** @return array{float, float} along the side, left and right end of a stretch of the wall */
    public function seen(float $offset, float $width): array
    {
        $ends = [$this->from + $offset * $this->cos, $this->from + ($offset + $width) * $this->cos];

        return [min($ends), max($ends)];
    }
}
