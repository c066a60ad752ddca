<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Plinth\Core\Geometry\PixelPoint;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;

#[AsMessageHandler]
final readonly class MatchPagesHandler
{
    public function __construct(private RegisterPage $register)
    {
    }

    public function __invoke(MatchPages $message): void
    {
        $this->register->run(Uuid::fromString($message->page), array_map(static fn (array $p): array => [new PixelPoint($p[0], $p[1]), new PixelPoint($p[2], $p[3])], $message->pairs));
    }
}
