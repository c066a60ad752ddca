<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Fitting\Standing;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Units\LengthUnit;

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
     * @param bool $isBar whether it is a scale bar
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
        public bool $isBar,
        private array $told,
    ) {
    }

    /** As it would be typed, in a project whose unit is given: feet and scale bars say themselves what they are, decimals are metres. */
    public function typed(LengthUnit $unit): string
    {
        $asRead = 1 === preg_match('/[\'"]| m/', $this->text)
            || LengthUnit::Millimetre === $unit && 1 === preg_match('/^[\d ,]+$/D', $this->text);

        $isMetres = 1 === preg_match('/^\d+\.\d+$/D', $this->text) && abs(1000.0 * (float) $this->text - $this->mm) < 1.0;

        return match (true) {
            $asRead => $this->text,
            // To the same last place: how far it is rounded counts.
            $isMetres => $this->text.' m',
            default => \sprintf('%s mm', (string) (float) \sprintf('%.1f', $this->mm)),
        };
    }

    public function standing(): Standing
    {
        return $this->isBar ? Standing::ScaleBar : Standing::Figured;
    }

    /** @return array<mixed> */
    public function told(LengthUnit $unit): array
    {
        return [
            ...$this->told,
            'along' => $this->along, 'spanMm' => $this->spanMm, 'typed' => $this->typed($unit), 'standing' => $this->standing()->value,
        ];
    }
}
