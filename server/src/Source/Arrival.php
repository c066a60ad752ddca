<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\RowId;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A file that was sent and waits to be looked at, or what became of it. It has the id of the change that it is to be. */
#[ORM\Entity]
class Arrival
{
    /** revision of the change that it became */
    #[ORM\Column(nullable: true)]
    public ?int $revision = null;

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        public Uuid $project,

        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        public Uuid $id,

        #[ORM\Column(type: UuidType::NAME)]
        public Uuid $account,

        #[ORM\Column(length: 255)]
        public string $name,

        /** @var array<string, string|null> where it goes and what is said of it */
        #[ORM\Column]
        public array $delivery,

        /** name in the drop-in folder, to which it goes back when it is refused; empty where it was sent by a browser */
        #[ORM\Column(length: 255)]
        public string $droppedAs,

        /** seconds since the epoch */
        #[ORM\Column]
        public int $at,
    ) {
    }

    public function key(): RowId
    {
        return new RowId($this->project, $this->id);
    }
}
