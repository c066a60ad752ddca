<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\DBAL\Connection;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Account\User;
use Plinth\Server\Http\Refusal;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\Uid\Uuid;

/** Reads what a client asks to be changed, prices it and applies it. */
final readonly class ChangeRequest
{
    /** @param iterable<Price> $prices */
    public function __construct(
        #[AutowireIterator(Price::class)] private iterable $prices,
        private Operations $operations,
        private Gate $gate,
        private Connection $connection,
    ) {
    }

    /**
     * @param JsonValue $body with `operations`, `base` and, where there are any, `after`
     *
     * @return callable(Workspace): void that makes the change
     */
    public function read(Uuid $project, User $user, JsonValue $body): callable
    {
        $operations = $body->list('operations');
        foreach ($this->prices as $price) {
            $price->check($project, $operations);
        }
        $base = Base::of($this->connection, $project, $user, $body, $this->gate->head($project));

        return function (Workspace $workspace) use ($operations, $base): void {
            $this->operations->apply($workspace, $operations, $base);
        };
    }

    public static function occasion(JsonValue $body): Occasion
    {
        return 'carry' === $body->optional('tracing')?->word(['keep', 'carry']) ? Occasion::WorkCarrying : Occasion::Work;
    }

    /** Work that was kept while its author was signed out is not done in the name of whoever has signed in since. */
    public static function requireAuthor(JsonValue $body, User $user): void
    {
        $author = $body->optional('account');
        if (null !== $author && !RowValues::uuid($author)->equals($user->id())) {
            throw Refusal::otherAccount();
        }
    }
}
