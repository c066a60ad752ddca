<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Plan\Room;
use Plinth\Server\Project\OnStorey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A room of an enclosure, which goes with the last of them. */
#[Kind('enclosedRoom', isMoved: false)]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'enclosure'])]
#[ORM\Index(fields: ['project', 'room'])]
class EnclosedRoom extends ProjectRow implements OnStorey
{
    #[Refers(Enclosure::class, then: WhenGone::GoesAlong, alone: true)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $enclosure;

    #[Refers(Room::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $room;

    public static function onStorey(): string
    {
        return 'r.room IN (SELECT o.id FROM '.Room::class.' o WHERE o.project = r.project AND o.storey = :storey)';
    }

    public function values(): array
    {
        return ['enclosure' => $this->enclosure->toRfc4122(), 'room' => $this->room->toRfc4122()];
    }

    public function take(RowValues $values): void
    {
        $this->enclosure = $values->id('enclosure');
        $this->room = $values->id('room');
    }

    public function enclosure(): Uuid
    {
        return $this->enclosure;
    }

    public function room(): Uuid
    {
        return $this->room;
    }
}
