<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;

/** Reads out of an operation what it is about: `things` by kind and id, or all of a storey. */
final readonly class Drawn
{
    public function __construct(private Kinds $kinds, private Elsewhere $elsewhere)
    {
    }

    /**
     * @param string|null $storey where a whole storey may be named
     *
     * @return list<ProjectRow>
     */
    public function meant(Workspace $workspace, JsonValue $wanted, ?string $storey = null): array
    {
        if (null !== $storey && null !== $wanted->optional($storey)) {
            return $this->elsewhere->drawnOn($workspace, RowValues::uuid($wanted->get($storey)));
        }
        $ids = [];
        foreach (null === $wanted->optional('things') ? [] : $wanted->list('things') as $thing) {
            $thing->object(['type', 'id']);
            $ids[$this->kinds->class($thing->get('type'))][] = [RowValues::uuid($thing->get('id')), $thing->at];
        }
        $rows = [];
        foreach ($ids as $class => $wantedHere) {
            $workspace->readAll($class, array_column($wantedHere, 0));
            foreach ($wantedHere as [$id, $at]) {
                $rows[] = $workspace->find($class, $id) ?? throw Refusal::conflict(
                    'gone',
                    \sprintf('This %s is not there any more.', $class::kind()->name),
                    $at,
                );
            }
        }

        return $rows;
    }
}
