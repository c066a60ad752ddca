<?php

declare(strict_types=1);

namespace Plinth\Server\Drafting;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Geometry\Motion;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Arrangeable;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStoreyOrSide;

/** A dimension by hand: how far two places lie apart, told at a line beside them. */
#[Kind('dimension')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'side'])]
class Dimension extends ProjectRow implements Arrangeable, DrawnOnStorey
{
    use OnStoreyOrSide;

    #[ORM\Column]
    private float $x1 = 0.0;

    #[ORM\Column]
    private float $y1 = 0.0;

    #[ORM\Column]
    private float $x2 = 0.0;

    #[ORM\Column]
    private float $y2 = 0.0;

    /** degrees from x along which it is measured; null for straight */
    #[ORM\Column(nullable: true)]
    private ?float $direction = null;

    /** mm from the first place to its line, to the left of the direction */
    #[ORM\Column]
    private float $off = 0.0;

    public function values(): array
    {
        return [
            ...$this->where(), 'x1' => $this->x1, 'y1' => $this->y1,
            'x2' => $this->x2, 'y2' => $this->y2, 'direction' => $this->direction, 'off' => $this->off,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->takeWhere($values);
        [$this->x1, $this->y1] = [$values->place('x1'), $values->place('y1')];
        [$this->x2, $this->y2] = [$values->place('x2'), $values->place('y2')];
        $this->direction = $values->optionalNumber('direction');
        $this->off = $values->place('off');
        if (0.0 === round($this->told()->measures(), 2)) {
            throw Refusal::invalid('no-length', 'There is nothing between the two places that way: choose two that lie apart.', $values->at('x2'));
        }
    }

    public function movedBy(Motion $motion): array
    {
        return parent::movedBy($motion) + [
            'direction' => null === $this->direction ? null : $motion->direction($this->direction),
            'off' => $motion->rise($this->off),
        ];
    }

    public function told(): DrawnDimension
    {
        return new DrawnDimension(new Point($this->x1, $this->y1), new Point($this->x2, $this->y2), $this->direction, $this->off);
    }
}
