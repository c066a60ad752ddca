<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Geometry\PixelPoint;

/** A figure that was read on a drawing and is neither stated nor refused. */
final readonly class FigureLeft
{
    /**
     * @param string $text as it is written
     * @param float $mm what it says
     * @param PixelPoint $a where it begins on the page, and $b where it ends
     * @param float $sigmaPx how well both ends are known
     * @param 'x'|'y'|null $along axis of the drawing's grid that it runs along; null for a wing's
     * @param bool $squares whether the drawing is squared by it
     * @param float $spanMm what it measures as the drawing is fitted now
     * @param array<mixed> $told all that was found of it
     */
    public function __construct(
        public string $text,
        public float $mm,
        public PixelPoint $a,
        public PixelPoint $b,
        public float $sigmaPx,
        public ?string $along,
        public bool $squares,
        public float $spanMm,
        private array $told,
    ) {
    }

    /** @return array<mixed> */
    public function told(): array
    {
        return [...$this->told, 'along' => $this->along, 'spanMm' => $this->spanMm];
    }
}
