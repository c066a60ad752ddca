<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** The table behind Jobs. */
#[ORM\Entity]
#[ORM\Table(name: 'job')]
#[ORM\UniqueConstraint(fields: ['project', 'subject', 'kind'])]
#[ORM\Index(fields: ['lane', 'state', 'notBefore'])]
#[ORM\Index(fields: ['heldBy'])]
class JobRow
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column(type: 'bigint')]
    public int $number;

    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $project;

    /** id of the row of the project that it is about */
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $subject;

    #[ORM\Column(length: 20)]
    public string $kind;

    #[ORM\Column(length: 5)]
    public Lane $lane;

    /** @var array<string, mixed> */
    #[ORM\Column]
    public array $more;

    #[ORM\Column(length: 7)]
    public JobState $state;

    /** what it was asked for */
    #[ORM\Column(length: 40)]
    public string $basis;

    /** of the work that is done, 0 to 1 */
    #[ORM\Column]
    public float $part;

    /** why it failed, and the same as a code */
    #[ORM\Column(length: 400)]
    public string $words;

    #[ORM\Column(length: 40)]
    public string $reason;

    /** grows with each try, each time it is asked for, and when it is stopped; only who holds the newest writes */
    #[ORM\Column]
    public int $attempt;

    /** times it was begun since it was asked for */
    #[ORM\Column]
    public int $tries;

    /** seconds since the epoch, as the two below */
    #[ORM\Column]
    public int $askedAt;

    #[ORM\Column]
    public int $notBefore;

    #[ORM\Column(nullable: true)]
    public ?int $heldUntil;

    /** name of the worker that has it, or had it last */
    #[ORM\Column(length: 200)]
    public string $heldBy;
}
