<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** Where a plan lies on a sheet: its scale, and where its zero is. */
final readonly class PlanOnPaper
{
    /**
     * @param float $scale 1 : so much
     * @param float $x mm from the sheet's left where the plan's zero lies
     * @param float $y mm from its top
     */
    public function __construct(public float $scale, public float $x, public float $y)
    {
    }

    /**
     * @param array{float, float} $p mm of the plan, y up
     *
     * @return array{float, float} mm of the sheet, y down
     */
    public function of(array $p): array
    {
        return [$this->x + $p[0] / $this->scale, $this->y - $p[1] / $this->scale];
    }
}
