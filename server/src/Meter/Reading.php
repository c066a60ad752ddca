<?php

declare(strict_types=1);

namespace Plinth\Server\Meter;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A distance that an account's meter has sent; it fills the figure that waits for one. */
#[ORM\Entity]
#[ORM\Table(name: 'meter_reading')]
#[ORM\Index(fields: ['user', 'at'])]
class Reading
{
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(name: 'user_id', type: UuidType::NAME)]
        private Uuid $user,
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $id,
        #[ORM\Column(length: 40)]
        private string $text,
        #[ORM\Column]
        private \DateTimeImmutable $at,
    ) {
    }

    public function user(): Uuid
    {
        return $this->user;
    }

    /** @return array{id: string, text: string, at: string} */
    public function describe(): array
    {
        return ['id' => $this->id->toRfc4122(), 'text' => $this->text, 'at' => $this->at->format(\DATE_ATOM)];
    }
}
