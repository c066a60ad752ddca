<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Project\Arrangeable;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStoreyOrSide;
use Symfony\Component\Uid\Uuid;

/** What is traced round on a side over its drawing: the face of the building, an opening in it, its roof. Its corners are rows. */
#[Kind('outline')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'side'])]
#[ORM\Index(fields: ['project', 'storey'])]
class Outline extends ProjectRow implements Arrangeable, DrawnOnStorey
{
    use OnStoreyOrSide;

    #[ORM\Column(length: 9, options: ['default' => 'face'])]
    private OutlineKind $kind = OutlineKind::Face;

    /**
     * mm: of a slab or ceiling downward from its top, of a kerb, plinth or chimney its height, of a roof across its slopes, of a dormer its
     * walls'
     */
    #[ORM\Column(nullable: true)]
    private ?float $thickness = null;

    /** mm of its top above the storey's floor; of a roof the eaves: where its underside passes over the outline */
    #[ORM\Column(nullable: true)]
    private ?float $top = null;

    /** mm of a slab: the uppermost part of its thickness, under which walls stand */
    #[ORM\Column(nullable: true)]
    private ?float $finish = null;

    /** mm by which its edges may be off as the picture shows them; null where a hand has traced them */
    #[ORM\Column(nullable: true)]
    private ?float $plusMinusMm = null;

    #[ORM\Column(length: 120)]
    private string $name = '';

    public function values(): array
    {
        return [
            ...$this->where(), 'name' => $this->name,
            'kind' => $this->kind->value, 'thickness' => $this->thickness, 'top' => $this->top,
            'finish' => $this->finish, 'plusMinusMm' => $this->plusMinusMm,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->takeWhere($values);
        $this->name = $values->name('name');
        $this->kind = $values->choiceOr('kind', OutlineKind::Face);
        $this->thickness = $values->optionalPositive('thickness');
        $this->top = $values->optionalNumber('top');
        $this->finish = $values->optionalPositive('finish');
        $this->plusMinusMm = $values->optionalPositive('plusMinusMm');
        if (null !== $this->finish && $this->finish > ($this->thickness ?? \INF)) {
            throw UnreadableDocument::outOfRange($values->at('finish'), 'at most the thickness of the floor, of which it is the uppermost part');
        }
    }

    public function plusMinusMm(): ?float
    {
        return $this->plusMinusMm;
    }

    public function goesRound(): OutlineKind
    {
        return $this->kind;
    }

    public function storey(): ?Uuid
    {
        return $this->storey;
    }

    public function thickness(): ?float
    {
        return $this->thickness;
    }

    public function finish(): ?float
    {
        return $this->finish;
    }

    public function top(): ?float
    {
        return $this->top;
    }
}
