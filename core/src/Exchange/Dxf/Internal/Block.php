<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

use Plinth\Core\Exchange\Dxf\DxfDrawing;
use Plinth\Core\Exchange\Dxf\DxfText;

/**
 * What is drawn under one name, and what it inserts in its turn.
 *
 * @phpstan-import-type Chain from DxfDrawing
 */
final class Block
{
    /** @var list<Chain> */
    public array $chains = [];
    /** @var list<string> with what each chain is drawn: its layer, colour and weight */
    public array $pens = [];
    /** @var list<DxfText> */
    public array $texts = [];
    /** @var list<Insert> */
    public array $inserts = [];

    /** The base point is the one that an insert's place is meant for. */
    public function __construct(public readonly float $baseX = 0.0, public readonly float $baseY = 0.0)
    {
    }

    public function isEmpty(): bool
    {
        return [] === $this->chains && [] === $this->inserts && [] === $this->texts;
    }
}
