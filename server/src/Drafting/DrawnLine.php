<?php

declare(strict_types=1);

namespace Plinth\Server\Drafting;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Drafting\DrawnLine as CoreLine;
use Plinth\Core\Drafting\Exception\UnusableLine;
use Plinth\Core\Drafting\Fill;
use Plinth\Core\Drafting\LineKind;
use Plinth\Core\Geometry\Motion;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Arrangeable;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStoreyOrSide;
use Plinth\Server\Project\Places;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** What somebody has drawn on a storey, a side or a section that is nothing else: straight stretches and arcs, or a closed shape. */
#[Kind('drawnLine')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'side'])]
#[ORM\Index(fields: ['project', 'drawing'])]
class DrawnLine extends ProjectRow implements Arrangeable, DrawnOnStorey
{
    use OnStoreyOrSide;

    /** the drawing it was traced over; null once that is gone */
    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    #[ORM\Column(length: 120)]
    private string $name = '';

    /** its corners */
    #[ORM\Column(type: Types::TEXT)]
    private string $line = '';

    #[ORM\Column]
    private bool $closed = false;

    #[ORM\Column(length: 26)]
    private LineKind $kind = LineKind::Narrow;

    #[ORM\Column(length: 13)]
    private Fill $fill = Fill::None;

    public function values(): array
    {
        return [
            ...$this->where(), 'drawing' => $this->drawing?->toRfc4122(),
            'name' => $this->name, 'line' => $this->line, 'closed' => $this->closed, 'kind' => $this->kind->value,
            'fill' => $this->fill->value,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->takeWhere($values);
        $this->drawing = $values->optionalId('drawing');
        $this->name = trim($values->text('name'));
        $this->line = trim($values->text('line', Places::LONGEST));
        $this->closed = $values->flag('closed');
        $this->kind = $values->choiceOr('kind', LineKind::Narrow);
        $this->fill = $this->closed ? $values->choiceOr('fill', Fill::None) : Fill::None;
        try {
            $this->drawn($values->at('line'));
        } catch (UnusableLine $e) {
            throw Refusal::invalid($e->why(), $e->getMessage(), $values->at('line'));
        }
    }

    public function movedBy(Motion $motion): array
    {
        return ['line' => Places::mapped($this->line, static fn (Point $p, float $rise): array => [$motion->of($p), $motion->rise($rise)])];
    }

    /** @param string $at where its corners were written */
    public function drawn(string $at = 'line'): CoreLine
    {
        $corners = Places::read($this->line, $at);

        return CoreLine::through(array_column($corners, 0), array_column($corners, 1), $this->closed, $this->kind, $this->fill);
    }

    public function side(): ?Uuid
    {
        return $this->side;
    }
}
