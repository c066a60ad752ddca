<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** What a script shows to read one project; the words themselves are kept by whoever has them, and here their hash alone. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
class ProjectToken
{
    /** when it was shown last */
    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $usedAt = null;

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $id,
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $project,
        #[ORM\Column(length: 80)]
        private string $name,
        #[ORM\Column(length: 64, unique: true)]
        private string $hash,
        #[ORM\Column]
        private \DateTimeImmutable $madeAt,
    ) {
    }

    public function project(): Uuid
    {
        return $this->project;
    }

    public function isShownBy(string $words): bool
    {
        return hash_equals($this->hash, self::hash($words));
    }

    public function usedAt(): ?\DateTimeImmutable
    {
        return $this->usedAt;
    }

    public function used(\DateTimeImmutable $at): void
    {
        $this->usedAt = $at;
    }

    /** @return array{id: string, name: string, madeAt: string, usedAt: string|null} */
    public function describe(): array
    {
        return [
            'id' => $this->id->toRfc4122(), 'name' => $this->name, 'madeAt' => $this->madeAt->format(\DATE_ATOM), 'usedAt' => $this->usedAt?->format(\DATE_ATOM),
        ];
    }

    public static function hash(string $words): string
    {
        return hash('sha256', $words);
    }
}
