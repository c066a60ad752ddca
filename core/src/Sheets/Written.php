<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Units\AreaUnit;
use Plinth\Core\Units\DisplayUnit;

/** How sizes are written on sheets. */
final readonly class Written
{
    public AreaUnit $areas;

    public function __construct(public DisplayUnit $unit = DisplayUnit::Millimetre, ?AreaUnit $areas = null)
    {
        $this->areas = $areas ?? AreaUnit::usualFor($unit);
    }

    public function length(float $mm): string
    {
        return $this->unit->format()->figure($mm);
    }

    public function area(float $mm2): string
    {
        return (string) preg_replace('/2$/', '²', $this->areas->written($mm2 / 1e6));
    }

    /** A height over the project's zero: with its sign, in metres where lengths are metric; common practice, no source. */
    public function level(float $mm): string
    {
        $sign = abs($mm) < 0.5 ? '±' : ($mm < 0.0 ? '−' : '+');

        return $sign.($this->isMetric() ? number_format(abs($mm) / 1000.0, 3, '.', '') : $this->length(abs($mm)));
    }

    public function isMetric(): bool
    {
        return \in_array($this->unit, [DisplayUnit::Millimetre, DisplayUnit::Centimetre, DisplayUnit::Metre], true);
    }

    public function inWords(): string
    {
        return match ($this->unit) {
            DisplayUnit::Millimetre => 'millimetres',
            DisplayUnit::Centimetre => 'centimetres',
            DisplayUnit::Metre => 'metres',
            DisplayUnit::Foot => 'decimal feet',
            DisplayUnit::Inch => 'decimal inches',
            default => 'feet and inches',
        };
    }
}
