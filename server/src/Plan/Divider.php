<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Divider as CoreDivider;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A line or an arc that bounds rooms where there is no wall, mm. */
#[Kind('divider')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'drawing'])]
class Divider extends ProjectRow implements OnStorey, DrawnOnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    #[ORM\Column]
    private float $x1 = 0.0;

    #[ORM\Column]
    private float $y1 = 0.0;

    #[ORM\Column]
    private float $x2 = 0.0;

    #[ORM\Column]
    private float $y2 = 0.0;

    /** mm of an arc over its chord, positive to the left; 0 for a straight one */
    #[ORM\Column]
    private float $rise = 0.0;

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'drawing' => $this->drawing?->toRfc4122(), 'x1' => $this->x1, 'y1' => $this->y1, 'x2' => $this->x2, 'y2' => $this->y2, 'rise' => $this->rise,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->drawing = $values->optionalId('drawing');
        $this->x1 = $values->place('x1');
        $this->y1 = $values->place('y1');
        $this->x2 = $values->place('x2');
        $this->y2 = $values->place('y2');
        $this->rise = $values->optionalNumber('rise') ?? 0.0;
        if (abs($this->rise) > PlanKeeper::LONGEST_MM) {
            throw Refusal::invalid(
                'divider-too-long',
                \sprintf('A divider rises at most %d m over its chord. Check the unit.', PlanKeeper::LONGEST_MM / 1e3),
                $values->at('rise'),
            );
        }
        if (hypot($this->x2 - $this->x1, $this->y2 - $this->y1) <= CoreWall::JOIN_MM) {
            throw Refusal::invalid('divider-of-no-length', 'A divider needs a length: its two ends lie on one spot.', $values->at('x2'));
        }
        if (hypot($this->x2 - $this->x1, $this->y2 - $this->y1) > PlanKeeper::LONGEST_MM) {
            throw Refusal::invalid(
                'divider-too-long',
                \sprintf('A divider is at most %d m long. Check the unit.', PlanKeeper::LONGEST_MM / 1e3),
                $values->at('x2'),
            );
        }
    }

    public function storey(): Uuid
    {
        return $this->storey;
    }

    /** @param array<string, scalar|null> $values of a divider's row */
    public static function core(string $id, array $values): CoreDivider
    {
        return new CoreDivider(
            $id,
            new Point((float) $values['x1'], (float) $values['y1']),
            new Point((float) $values['x2'], (float) $values['y2']),
            (float) ($values['rise'] ?? 0.0),
        );
    }
}
