<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Project\Arrangeable;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStoreyOrSide;

/** Words over the drawing, with an arrow where it points at something; an assumption is a note that Prove lists. */
#[Kind('note')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
class Note extends ProjectRow implements Arrangeable, DrawnOnStorey
{
    use OnStoreyOrSide;

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    /** where the arrow points */
    #[ORM\Column(nullable: true)]
    private ?float $toX = null;

    #[ORM\Column(nullable: true)]
    private ?float $toY = null;

    #[ORM\Column(length: 400)]
    private string $words = '';

    #[ORM\Column]
    private bool $assumption = false;

    public function values(): array
    {
        return [
            ...$this->where(), 'x' => $this->x, 'y' => $this->y, 'toX' => $this->toX, 'toY' => $this->toY, 'words' => $this->words, 'assumption' => $this->assumption,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->takeWhere($values);
        $this->x = $values->place('x');
        $this->y = $values->place('y');
        $this->toX = $values->optionalNumber('toX');
        $this->toY = $values->optionalNumber('toY');
        $this->words = $values->words('words', 400);
        $this->assumption = $values->flag('assumption');
    }
}
