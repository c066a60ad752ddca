<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/**
 * What the ink of a drawing was found to show, waiting to be accepted. It follows from the page and the fit, belongs to no change, and
 * is found again whenever it is missing; what was refused is kept in page pixels, so that it stays refused.
 */
#[ORM\Entity]
#[ORM\Table(name: 'finding')]
class Finding
{
    /** page, cut and fit that it was found under; empty where it was not */
    #[ORM\Column(length: 40)]
    public string $basis = '';

    /** @var array<string, list<array<string, mixed>>> what was found, by sort */
    #[ORM\Column]
    public array $found = [];

    /** @var list<list<float>> two places on the page each, px */
    #[ORM\Column]
    public array $refused = [];

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        public Uuid $project,

        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        public Uuid $drawing,

        #[ORM\Id]
        #[ORM\Column(length: 7)]
        public FindingKind $kind,
    ) {
    }
}
