<script setup lang="ts">
import { computed } from 'vue'
import { addPiece } from '#core/card/edit/stack'
import type { PieceKind } from '#core/card/pieces'
import { PIECE_KINDS } from '#core/card/pieces'
import { useBench } from '~/stores/bench'
import PieceList from './PieceList.vue'

const bench = useBench()
const pieces = computed(() => bench.card?.pieces ?? [])
const kinds = Object.entries(PIECE_KINDS) as [PieceKind, (typeof PIECE_KINDS)[PieceKind]][]

function add(kind: PieceKind) {
  let made = ''
  bench.edit(`Add ${kind}`, (card) => {
    const added = addPiece(card, kind)
    made = added.id
    return added.card
  })
  bench.select(made)
}
</script>

<template>
  <aside class="stack" aria-label="Stack">
    <div class="head">
      <button class="panel-title card-button" @click="bench.select(null)">Stack, front to back</button>
      <button class="plain-button add">
        Add a piece
        <VMenu activator="parent" location="bottom end">
          <VList density="compact">
            <VListItem
              v-for="[kind, { label, help }] in kinds"
              :key="kind"
              :title="label"
              :subtitle="help"
              @click="add(kind)"
            />
          </VList>
        </VMenu>
      </button>
    </div>
    <div class="list">
      <PieceList :pieces="pieces" />
      <p v-if="pieces.length === 0" class="empty">
        The card is empty. Add a piece of type, choose its font, then pour coats on it.
      </p>
    </div>
  </aside>
</template>

<style scoped>
.stack {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-right: 1px solid var(--line);
}
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 8px 10px;
}
.card-button {
  padding: 0;
  font-family: inherit;
  cursor: pointer;
  background: none;
  border: 0;
}
.add {
  height: 26px;
  padding: 0 9px;
}
.list {
  flex: 1;
  min-height: 0;
  overflow: auto;
  border-bottom: 1px solid var(--line);
}
.empty {
  padding: 16px 12px;
  color: var(--ink-2);
}
</style>
