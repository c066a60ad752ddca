<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** A row of a drawing's own rooms table, as it stands there; what it does not say is null. */
final readonly class ListedRoom
{
    /**
     * @param float|null $width mm
     * @param float|null $depth mm
     */
    public function __construct(
        public string $number,
        public string $name,
        public ?float $width = null,
        public ?float $depth = null,
        public ?float $areaM2 = null,
    ) {
    }
}
