<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf;

/**
 * What a DXF file draws: chains of straight pieces in drawing units, y up, and the number of its unit ($INSUNITS, 0 where it
 * says none), and what it writes.
 *
 * @phpstan-type Chain non-empty-list<array{float, float}>
 */
final readonly class DxfDrawing
{
    /**
     * @param list<Chain> $chains
     * @param list<int> $pens one for each: what lies on one layer in one colour and weight has one number
     * @param list<DxfText> $texts
     */
    public function __construct(public array $chains, public int $unit, public array $pens = [], public array $texts = [])
    {
    }
}
