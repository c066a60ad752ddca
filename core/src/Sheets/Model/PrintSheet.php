<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Model;

/** A print sheet: its paper, its views, and what its title block says of it alone. */
final readonly class PrintSheet
{
    /**
     * @param float $width mm
     * @param float $height mm
     * @param list<SheetView> $views
     * @param string $part what it shows: the supplementary title
     * @param string $number its identification number
     */
    public function __construct(
        public string $id,
        public float $width,
        public float $height,
        public array $views,
        public string $part = '',
        public string $number = '',
        public string $owner = '',
        public string $creator = '',
        public string $approved = '',
        public string $date = '',
    ) {
    }
}
