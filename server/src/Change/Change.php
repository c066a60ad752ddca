<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/**
 * One entry of a project's history: what was done, by whom, and each touched row before and after.
 *
 * @phpstan-import-type Values from ProjectRow
 *
 * @phpstan-type Touch array{type: string, id: string, before: Values|null, after: Values|null}
 */
#[ORM\Entity]
#[ORM\Table(name: 'project_change')]
#[ORM\UniqueConstraint(fields: ['project', 'revision'])]
#[ORM\Index(fields: ['project', 'user', 'state', 'revision'])]
class Change
{
    #[ORM\Column(length: 8)]
    private ChangeState $state;

    /** @param list<Touch> $touches */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $project,
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $id,
        #[ORM\Column]
        private int $revision,
        #[ORM\Column(name: 'account', type: UuidType::NAME)]
        private Uuid $user,
        #[ORM\Column(length: 120)]
        private string $title,
        #[ORM\Column(type: Types::JSON)]
        private array $touches,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        private \DateTimeImmutable $at,
        /** the change that this one takes back or does again */
        #[ORM\Column(type: UuidType::NAME, nullable: true)]
        private ?Uuid $target = null,
    ) {
        $this->state = null === $target ? ChangeState::Done : ChangeState::Step;
    }

    public function id(): Uuid
    {
        return $this->id;
    }

    public function revision(): int
    {
        return $this->revision;
    }

    public function title(): string
    {
        return $this->title;
    }

    /** @return list<Touch> */
    public function touches(): array
    {
        return $this->touches;
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function turn(ChangeState $state): void
    {
        $this->state = $state;
    }

    public function project(): Uuid
    {
        return $this->project;
    }

    public function isBy(Uuid $user): bool
    {
        return $this->user->equals($user);
    }

    public function target(): ?Uuid
    {
        return $this->target;
    }

    public function state(): ChangeState
    {
        return $this->state;
    }
}
