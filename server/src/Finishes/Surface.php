<?php

declare(strict_types=1);

namespace Plinth\Server\Finishes;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Surface as CoreSurface;
use Plinth\Core\Plan\Model\SurfaceOn;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Plan\Room;
use Plinth\Server\Plan\Wall;
use Plinth\Server\Project\OnStorey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A floor, a ceiling, the walls of a room or one face of a wall that has a finish; mm. */
#[Kind('surface')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'room'])]
#[ORM\Index(fields: ['project', 'wall'])]
#[ORM\Index(fields: ['project', 'finish'])]
class Surface extends ProjectRow implements OnStorey
{
    #[Refers(Finish::class)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $finish;

    #[Refers(Room::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $room = null;

    #[Refers(Wall::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $wall = null;

    #[ORM\Column(name: 'laid_on', length: 7)]
    private SurfaceOn $on = SurfaceOn::Floor;

    /** above the floor, and up to where; all of it without */
    #[ORM\Column(nullable: true)]
    private ?float $bottom = null;

    #[ORM\Column(nullable: true)]
    private ?float $top = null;

    /** along the wall from its start, and up to where; all of it without */
    #[ORM\Column(name: 'start_mm', nullable: true)]
    private ?float $start = null;

    #[ORM\Column(name: 'end_mm', nullable: true)]
    private ?float $end = null;

    /** where its pattern begins: in plan, or along the walls and up from the floor */
    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    #[ORM\Column]
    private float $degrees = 0.0;

    public static function onStorey(): string
    {
        return 'r.room IN (SELECT o.id FROM '.Room::class.' o WHERE o.project = r.project AND o.storey = :storey)'
            .' OR r.wall IN (SELECT w.id FROM '.Wall::class.' w WHERE w.project = r.project AND w.storey = :storey)';
    }

    public function values(): array
    {
        return [
            'finish' => $this->finish->toRfc4122(), 'room' => $this->room?->toRfc4122(), 'wall' => $this->wall?->toRfc4122(),
            'on' => $this->on->value, 'bottom' => $this->bottom, 'top' => $this->top, 'start' => $this->start, 'end' => $this->end,
            'x' => $this->x, 'y' => $this->y, 'degrees' => $this->degrees,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->finish = $values->id('finish');
        $this->room = $values->optionalId('room');
        $this->wall = $values->optionalId('wall');
        $this->on = $values->choice('on', SurfaceOn::class);
        if ((null === $this->room) === $this->on->isOfRoom() || (null === $this->room) === (null === $this->wall)) {
            throw Refusal::invalid(
                'one-place',
                'A floor, a ceiling or walls are those of a room, a left or right face is that of a wall: name that one.',
                $values->at($this->on->isOfRoom() ? 'room' : 'wall'),
            );
        }
        $this->bottom = $values->optionalNumber('bottom');
        $this->top = $values->optionalNumber('top');
        $this->start = $values->optionalNumber('start');
        $this->end = $values->optionalNumber('end');
        foreach ([['bottom', 'top'], ['start', 'end']] as [$from, $to]) {
            if (null !== $this->{$from} && null !== $this->{$to} && $this->{$to} <= $this->{$from}) {
                throw UnreadableDocument::outOfRange($values->at($to), "more than its $from");
            }
        }
        $this->x = $values->place('x');
        $this->y = $values->place('y');
        $this->degrees = fmod($values->number('degrees'), 360.0);
    }

    public function finished(): CoreSurface
    {
        return new CoreSurface(
            $this->id->toRfc4122(),
            $this->finish->toRfc4122(),
            $this->on,
            (string) ($this->room ?? $this->wall)?->toRfc4122(),
            $this->bottom,
            $this->top,
            $this->start,
            $this->end,
            new Point($this->x, $this->y),
            $this->degrees,
        );
    }
}
