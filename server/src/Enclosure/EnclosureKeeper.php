<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\Follower;
use Plinth\Server\Change\Occasion;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Plan\Room;

/** No class is there twice, no measure has two limits, and a room is enclosed on its own storey. */
final readonly class EnclosureKeeper implements Follower
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public static function place(): int
    {
        return 10;
    }

    public function follow(Workspace $workspace, Occasion $occasion): void
    {
        $this->unlike($workspace, FireClass::class);
        $this->unlike($workspace, EscapeLimit::class);
        $this->onOneStorey($workspace);
    }

    /** @param class-string<FireClass>|class-string<EscapeLimit> $class */
    private function unlike(Workspace $workspace, string $class): void
    {
        $touched = $workspace->touched($class);
        if ([] === $touched) {
            return;
        }
        $there = [];
        foreach ([...$this->entities->getRepository($class)->findBy(['project' => $workspace->project()]), ...$touched] as $row) {
            if (null !== $workspace->find($class, $row->id())) {
                $there[$row->alike()][$row->id()->toRfc4122()] = $row;
            }
        }
        foreach ($touched as $row) {
            $others = array_diff_key($there[$row->alike()], [$row->id()->toRfc4122() => true]);
            if ([] !== $others) {
                throw array_values($others)[0]->isThere();
            }
        }
    }

    private function onOneStorey(Workspace $workspace): void
    {
        $rooms = $workspace->touched(EnclosedRoom::class);
        foreach ($workspace->touched(Room::class) as $room) {
            array_push($rooms, ...$workspace->findBy(EnclosedRoom::class, 'room', $room->id()));
        }
        $enclosures = $workspace->touched(Enclosure::class);
        foreach ($rooms as $row) {
            $enclosure = $workspace->get(Enclosure::class, $row->enclosure());
            $enclosures[] = $enclosure;
            if (!$enclosure->storey()->equals($workspace->get(Room::class, $row->room())->storey())) {
                throw Refusal::invalid('other-storey', 'An enclosure is of rooms on its own storey: name one of those.', 'room');
            }
        }
        foreach ($enclosures as $enclosure) {
            $hasRooms = [] !== $workspace->findBy(EnclosedRoom::class, 'enclosure', $enclosure->id());
            if ($enclosure->hasOutline() === $hasRooms) {
                throw Refusal::invalid(
                    'one-extent',
                    'An enclosure is of rooms, or of what its outline goes round: give one of the two, and copy it with its rooms.',
                    'line',
                );
            }
        }
    }
}
