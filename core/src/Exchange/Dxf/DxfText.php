<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf;

/** A line of letters in a DXF file, in drawing units, y up. */
final readonly class DxfText
{
    /**
     * @param float $height of capitals
     * @param float $turnRad from x towards y
     * @param 'start'|'middle'|'end' $anchor which part of its baseline its place belongs to
     */
    public function __construct(
        public string $text,
        public float $x,
        public float $y,
        public float $height,
        public float $turnRad,
        public string $anchor,
    ) {
    }

    /**
     * The same in another place.
     *
     * @param array{float, float, float, float, float, float} $m x' = m0 x + m2 y + m4, y' = m1 x + m3 y + m5
     */
    public function mapped(array $m): self
    {
        [$c, $s] = [cos($this->turnRad), sin($this->turnRad)];
        [$u, $v] = [$m[0] * $c + $m[2] * $s, $m[1] * $c + $m[3] * $s];
        // What is mirrored is read the right way round all the same, on the side where it stood.
        $high = abs($m[0] * $m[3] - $m[1] * $m[2]) / max(1e-12, hypot($u, $v));

        return new self(
            $this->text,
            $m[0] * $this->x + $m[2] * $this->y + $m[4],
            $m[1] * $this->x + $m[3] * $this->y + $m[5],
            $this->height * $high,
            atan2($v, $u),
            $this->anchor,
        );
    }
}
