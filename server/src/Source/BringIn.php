<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Core\Ink\Page\DrawingKind;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Change;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Reading\Inspector;
use Plinth\Server\Source\Reading\PictureFailure;
use Plinth\Server\Source\Reading\WorldFile;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** Takes a file into a project as one change: the source, its pages, and a drawing on each. */
final readonly class BringIn
{
    public const MOST_BYTES = 200_000_000;

    public function __construct(
        private Recorder $recorder,
        private FileStore $files,
        private Inspector $inspector,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param callable(): void|null $onLook
     *
     * @throws Refusal in words for whoever chose the file
     * @throws PictureFailure where looking at it was broken off by something that had nothing to do with it
     */
    public function take(Uuid $project, User $user, Delivery $delivery, Uuid $changeId, ?callable $onLook = null): Change
    {
        [$format, $pages] = $this->inspector->inspect($delivery->path, $onLook);
        if (null !== $delivery->worldFile) {
            $pages[0] = $pages[0]->with(WorldFile::hint($delivery->worldFile, $pages[0]->height), '');
        }
        $name = self::cleanName($delivery->name);
        $bytes = (int) filesize($delivery->path);
        $hash = $this->files->takeIn($delivery->path);
        $source = [
            'name' => $name, 'sha256' => $hash, 'bytes' => $bytes, 'mediaType' => $format->value,
            'origin' => mb_substr($delivery->origin, 0, 400), 'address' => mb_substr($delivery->address, 0, 400),
            'broughtBy' => $user->name(), 'broughtAt' => $this->clock->now()->setTimezone(new \DateTimeZone('UTC'))->format(\DATE_ATOM),
        ];

        return $this->recorder->record($project, $user, $changeId, 'Bring in '.mb_substr($name, 0, 100), function (Workspace $workspace) use ($source, $pages, $delivery): void {
            $sourceId = new UuidV7();
            $workspace->add(Source::class, $sourceId, $source, 'source');
            $order = $this->nextOrder($workspace, $delivery);
            foreach ($pages as $i => $found) {
                $pageId = new UuidV7();
                $replaces = 0 === $i ? $delivery->replaces : null;
                $workspace->add(Page::class, $pageId, Page::valuesOf($sourceId, $i + 1, $found, $replaces), 'page');
                if (null !== $delivery->replaces) {
                    break; // one page takes the place of one
                }
                $workspace->add(Drawing::class, new UuidV7(), [
                    'page' => $pageId->toRfc4122(), 'storey' => $delivery->storey?->toRfc4122(), 'side' => $delivery->side?->toRfc4122(),
                    'name' => self::title(
                        $source['name'],
                        $i + 1,
                        \count($pages),
                    ), 'kind' => null === $delivery->storey ? DrawingKind::Elevation->value : DrawingKind::Plan->value,
                    'left' => 0.0, 'top' => 0.0, 'width' => $found->width, 'height' => $found->height, 'fade' => 0.75,
                    'turns' => 0, 'inkOnly' => false, 'tint' => Tint::Ink->value, 'before' => false, 'order' => $order + $i,
                    // Of many pages the first is shown; the others wait to be looked at.
                    'hidden' => $i > 0,
                ], 'drawing');
            }
        });
    }

    private function nextOrder(Workspace $workspace, Delivery $delivery): int
    {
        $order = 0;
        foreach ($workspace->findBy(
            Drawing::class,
            null === $delivery->storey ? 'side' : 'storey',
            $delivery->storey ?? $delivery->side ?? throw Refusal::invalid(
                'no-place',
                'Name the storey or the side that the drawing belongs to.',
                'storey',
            ),
        ) as $drawing) {
            $order = max($order, $drawing->order() + 1);
        }

        return $order;
    }

    private static function title(string $name, int $page, int $pages): string
    {
        $title = mb_substr(pathinfo($name, \PATHINFO_FILENAME), 0, 100);

        return ('' === $title ? 'Drawing' : $title).($pages > 1 ? ", page $page" : '');
    }

    private static function cleanName(string $name): string
    {
        $clean = trim((string) preg_replace('/[\x00-\x1F\x7F\/\\\\]+/u', ' ', mb_scrub($name)));

        return '' === $clean ? 'picture' : mb_substr($clean, 0, 200);
    }
}
