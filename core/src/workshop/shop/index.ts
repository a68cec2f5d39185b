export {
  SHOP_EVENT_DATA,
  type ShopEvent,
  type ShopEventData,
  type ShopEventType,
  type StockItem,
  type StockUnit,
} from './shop-events.ts';
export {
  type FeltDrag,
  feltAt,
  foldShop,
  type MeasuredSource,
  NEW_SHOP,
  type Said,
  type Shop,
  type ShopSurroundings,
  type StockLevel,
  stockLevels,
  type Used,
  withShopEvent,
} from './shop-fold.ts';
export { hasLead, hasOthers, type Role, roleOf, ROLES, UNNAMED } from './people.ts';
