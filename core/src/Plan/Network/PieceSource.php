<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

/**
 * Pieces by place, mm.
 */
interface PieceSource
{
    /** @return list<Piece> whose body, and a millimetre round it, may touch the box */
    public function near(float $x1, float $y1, float $x2, float $y2): array;

    /** Right end of all that is drawn. */
    public function farRight(): float;
}
