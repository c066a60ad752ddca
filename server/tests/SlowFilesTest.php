<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/** A file that takes for ever to draw holds up its own project at most, and can be stopped. */
final class SlowFilesTest extends TestCase
{
    public function testOneProjectsSlowFilesDoNotHoldUpAnothers(): void
    {
        $files = new Files();
        $slow = new Desk(Client::ofStack()->signIn());
        // 1 kB of noise upon noise, and a page of many hundred thousand strokes.
        $svg = $files->write(
            'noise.svg',
            Files::svg(
                '<filter id="f" x="0" y="0" width="1" height="1"><feTurbulence baseFrequency="0.01" numOctaves="99999"/></filter><rect width="800" height="600" filter="url(#f)"/>',
            ),
        );
        $pdf = $files->write(
            'strokes.pdf',
            Files::pdf([[
                'width' => 3000.0,
                'height' => 2000.0,
                'content' => implode(
                    ' ',
                    array_map(
                        static fn (int $i): string => \sprintf(
                            '%d %d m %d %d l S',
                            $i * 7919 % 3000,
                            $i * 104_729 % 2000,
                            $i * 1_299_709 % 3000,
                            $i * 15_485_863 % 2000,
                        ),
                        range(1, 300_000),
                    ),
                ),
            ]]),
        );
        $pages = [];
        foreach ([$svg, $pdf, $svg] as $path) {
            [$status] = $slow->send($path, basename($path));
            self::assertSame(200, $status);
        }
        foreach (Desk::rows($slow->state(), 'page') as $page) {
            $pages[] = $page['id'];
        }
        usleep(1_500_000);
        $other = new Desk(Client::ofStack()->signIn('editor@plinth.example'));
        $other->bringIn(__DIR__.'/../../demo/station-site-sketch.jpg');
        self::assertSame('done', $other->imported()['state'], 'It comes in while the others are still being drawn.');
        self::assertNotSame(
            [],
            array_filter(
                $pages,
                static fn (string $page): bool => \in_array(
                    $slow->progress('import-page', $page)->get('state')->text(),
                    ['waiting', 'working'],
                    true,
                ),
            ),
            'They are.',
        );
        self::assertContains('stopped', array_map(static fn (string $page): string => $slow->stop('import-page', $page), $pages));
        $slow->bringIn(__DIR__.'/../../demo/station-site-sketch.jpg');
        self::assertSame('done', $slow->imported()['state']);
    }
}
